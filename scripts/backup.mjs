// npm run backup: everything as one file; VERIDON_PASSPHRASE proves later that nobody has changed it, VERIDON_ENCRYPT=1 encrypts it. Where Veridon runs on this data it is asked for it; else the data directory is opened here.
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { installPackages } from './prepare.mjs';

const [to] = process.argv.slice(2);
const passphrase = process.env.VERIDON_PASSPHRASE;
const encrypt = process.env.VERIDON_ENCRYPT === '1';
if (encrypt && passphrase === undefined) {
  console.error('To encrypt a backup, set VERIDON_PASSPHRASE too. No backup was made.');
  process.exit(1);
}
const port = Number(process.env.VERIDON_PORT ?? 4320);
const url = `http://127.0.0.1:${port}`;

/** Asks Veridon, where it runs. */
async function ask() {
  const alive = await fetch(`${url}/api/health`).catch(() => null);
  if (!alive?.ok) return false;
  const made = await fetch(`${url}/api/backups`, {
    method: 'POST',
    headers: { 'Idempotency-Key': `backup.${Date.now()}` },
    body: JSON.stringify(passphrase === undefined ? {} : { passphrase, encrypt }),
  });
  const kept = await made.json();
  if (!made.ok) throw new Error(kept.detail);
  if (to) {
    const file = await fetch(`${url}/api/backups/${kept.name}`);
    writeFileSync(to, Buffer.from(await file.arrayBuffer()));
  }
  console.log(`${to ? resolve(to) : kept.name} has everything, ${(kept.bytes / 1e6).toFixed(1)} MB.`);
  return true;
}

installPackages();
if (!(await ask())) {
  const args = ['--import', 'tsx', 'scripts/keeping.ts', 'backup', ...(to ? [resolve(to)] : [])];
  process.exit(spawnSync(process.execPath, args, { stdio: 'inherit' }).status ?? 1);
}
