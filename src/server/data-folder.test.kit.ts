import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '../db';

/**
 * A data directory of a test file's own, whose database is open before its first test, and which is gone after its last one. `before`
 * puts something into it before the database is opened; `after` runs before it is closed.
 */
export function dataFolder(
  name: string,
  { before, after }: { before?: (folder: string) => unknown; after?: () => unknown } = {},
): string {
  const folder = mkdtempSync(join(tmpdir(), `veridon-${name}-`));
  beforeAll(async () => {
    process.env.VERIDON_DATA_DIR = folder;
    process.env.VERIDON_RESERVE_MB = '1';
    delete process.env.DATABASE_URL;
    await before?.(folder);
    await openDatabase();
    // A new database may have to be made first.
  }, 60_000);
  afterAll(async () => {
    await after?.();
    await (await openDatabase()).close();
    rmSync(folder, { recursive: true, force: true });
  });
  return folder;
}
