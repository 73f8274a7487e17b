import { copyFileSync } from 'node:fs';
import { dataPlace, openDatabase } from '../src/db';
import { backupFile, makeBackup } from '../src/server/backup';
import { restoreBackup } from '../src/server/restore';

/** `backup [TO]` and `restore FILE` on a data directory that no running Veridon has. */

async function work(): Promise<number> {
  const [what, file] = process.argv.slice(2);
  const passphrase = process.env.VERIDON_PASSPHRASE;
  if (what === 'backup') {
    const encrypt = process.env.VERIDON_ENCRYPT === '1';
    const kept = await makeBackup('request', passphrase === undefined ? undefined : { passphrase, encrypt });
    const from = (await backupFile(kept.name))!;
    if (file) copyFileSync(from, file);
    console.log(`${file ?? from} has everything, ${(kept.bytes / 1e6).toFixed(1)} MB.`);
    return 0;
  }
  const done = await restoreBackup(file!, passphrase);
  if (!done.ok) {
    console.error(done.reason);
    return 1;
  }
  const { counts, plans, verified, unreadable, made } = done.value;
  const { copies = 0 } = counts;
  console.log(
    `${dataPlace()} is as everything was at ${made}: ${plans} plans and ${copies} sealed copies among it. Passwords of directories are not in a backup; give them again.`,
  );
  console.log(
    verified
      ? 'The passphrase is correct: the backup was not changed.'
      : 'This backup is unverified: its checksum proves that it is complete, not who made it. To make a backup that can be verified, set VERIDON_PASSPHRASE.',
  );
  for (const fault of unreadable) console.error(fault);
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
