import { randomBytes } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  writeSync,
} from 'node:fs';
import { dirname, join } from 'node:path';

function synced(path: string, flags: string, mode: number, work: (handle: number) => void = () => {}): void {
  const handle = openSync(path, flags, mode);
  try {
    work(handle);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/**
 * Puts a file in its place so that a power cut finds either what was there or all of what comes: written beside it,
 * synced, renamed, and the folder synced. `mode` is for a file that is new.
 */
export function keepFile(path: string, content: string | Uint8Array, mode = 0o644): void {
  const beside = `${path}.new`;
  const bytes = typeof content === 'string' ? Buffer.from(content, 'utf8') : content;
  synced(beside, 'w', mode, (handle) => {
    for (let at = 0; at < bytes.length;) at += writeSync(handle, bytes, at);
  });
  renameSync(beside, path);
  synced(dirname(path), 'r', 0);
}

/** The key of the bench in its folder, made when it is first asked for; this account alone can read it. */
export function benchKey(folder: string): string {
  const file = join(folder, 'key');
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true });
    keepFile(file, randomBytes(24).toString('hex'), 0o600);
  }
  return readFileSync(file, 'utf8').trim();
}
