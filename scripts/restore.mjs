// npm run restore -- FILE: puts a backup into an empty data directory, VERIDON_DATA_DIR. VERIDON_PASSPHRASE checks that nobody has changed it.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { installPackages, prepareDatabase } from './prepare.mjs';

const [file] = process.argv.slice(2);
if (!file || !existsSync(file)) {
  console.error(
    file
      ? `There is no file ${file}.`
      : 'Say which backup: VERIDON_DATA_DIR=.data/new npm run restore -- veridon-….backup.gz',
  );
  process.exit(1);
}
installPackages();
prepareDatabase();
const args = ['--import', 'tsx', 'scripts/keeping.ts', 'restore', resolve(file)];
process.exit(spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1);
