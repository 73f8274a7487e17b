import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkPlace, DataPlaceError, lockPlace } from './place';

const folder = mkdtempSync(join(tmpdir(), 'veridon-place-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('a directory is made and can be written', () => {
  expect(() => checkPlace(join(folder, 'new', 'deep'))).not.toThrow();
});

test.each([
  ['below a file', () => join(folder, 'file', 'data'), /a file stands where a directory is wanted/],
  ['where nothing may be written', () => '/sys/veridon', /read-only|may not write|operation not permitted/i],
])('%s it is refused, with what to do', (_, place, reason) => {
  writeFileSync(join(folder, 'file'), '');
  expect(() => checkPlace(place())).toThrow(DataPlaceError);
  expect(() => checkPlace(place())).toThrow(reason);
  expect(() => checkPlace(place())).toThrow(/VERIDON_DATA_DIR/);
});

describe('the lock', () => {
  const lock = join(folder, 'veridon.lock');
  afterEach(() => rmSync(lock, { force: true }));

  test('is this process’s, and may be taken again by it', () => {
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
    expect(() => lockPlace(folder)).not.toThrow();
  });

  test('refuses while another process lives, and is taken over when it is dead', async () => {
    const other = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 60000)']);
    writeFileSync(lock, String(other.pid));
    expect(() => lockPlace(folder)).toThrow(new RegExp(`Another Veridon \\(process ${other.pid}\\)`));
    await new Promise((resolve) => {
      other.once('exit', resolve);
      other.kill('SIGKILL');
    });
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
  });

  test('one that says nothing sensible is taken over', () => {
    writeFileSync(lock, 'half a');
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
  });
});
