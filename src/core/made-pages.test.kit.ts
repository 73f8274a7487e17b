import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Holds a page of docs/ to what it is made of; with `MAKE_DOCS=1` it is made anew. */
export function expectPage(name: string, page: string): void {
  const file = join(__dirname, '../../docs', name);
  if (process.env['MAKE_DOCS']) writeFileSync(file, page);
  expect(readFileSync(file, 'utf8')).toBe(page);
}
