import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Where the bench process answers, directories and all. */
export function benchUrl(): string {
  return process.env.VERIDON_BENCH_URL ?? 'http://127.0.0.1:4321';
}

/**
 * What Veridon shows the bench so that it is let in. The key lies in a file of the bench's folder that this account
 * alone can read; it is read anew each time, since the bench may have been started after us.
 */
export function benchHeaders(): Record<string, string> {
  const folder = process.env.VERIDON_BENCH_DIR ?? '.data/bench';
  const file = join(/* turbopackIgnore: true */ folder, 'key');
  return existsSync(file) ? { Authorization: `Bearer ${readFileSync(file, 'utf8').trim()}` } : {};
}
