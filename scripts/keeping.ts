import { copyFileSync } from 'node:fs';
import { dataPlace, openDatabase } from '../src/db';
import { backupFile, makeBackup, restoreBackup } from '../src/server/backup';

/** `backup [TO]` and `restore FILE` on a data directory that no running Veridon has. */

async function work(): Promise<number> {
  const [what, file] = process.argv.slice(2);
  if (what === 'backup') {
    const kept = await makeBackup('request');
    const from = (await backupFile(kept.name))!;
    if (file) copyFileSync(from, file);
    console.log(`${file ?? from} has everything, ${(kept.bytes / 1e6).toFixed(1)} MB.`);
    return 0;
  }
  const done = await restoreBackup(file!);
  if (!done.ok) {
    console.error(done.reason);
    return 1;
  }
  const { plans = 0, copies = 0 } = done.value.counts;
  console.log(
    `${dataPlace()} is as everything was at ${done.value.made}: ${plans} plans and ${copies} sealed copies among it. Passwords of directories are not in a backup; give them again.`,
  );
  return 0;
}

void work()
  .catch((error: unknown) => {
    console.error(error instanceof Error ? error.message : error);
    return 1;
  })
  .then(async (status) => {
    await openDatabase()
      .then((opened) => opened.close())
      .catch(() => {});
    process.exit(status);
  });
