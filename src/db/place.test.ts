import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkPlace, DataPlaceError, lockPlace, unlockPlace } from './place.mjs';

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
  const holder =
    'process.stdout.write(take(process.argv[1]) ? "taken" : "refused"); setTimeout(() => {}, 60_000)';
  const take = `const { openSync } = require('node:fs'); const { tryLock } = require('fs-native-extensions');
    const take = (file) => tryLock(openSync(file, 'a+'));`;

  /** A process of its own that tries to take the lock; what came of it, and how to end it. */
  const another = async () => {
    const child = spawn(process.execPath, ['-e', take + holder, lock]);
    const said = await new Promise((resolve) => child.stdout.once('data', (bytes) => resolve(String(bytes))));
    const kill = () =>
      new Promise((resolve) => {
        child.once('exit', resolve);
        child.kill('SIGKILL');
      });
    return { said, kill };
  };
  afterEach(() => unlockPlace(folder));

  test('is this process’s, may be taken again by it, and keeps others out until it is given back', async () => {
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
    expect(() => lockPlace(folder)).not.toThrow();
    const late = await another();
    expect(late.said).toBe('refused');
    await late.kill();
    unlockPlace(folder);
    const next = await another();
    expect(next.said).toBe('taken');
    await next.kill();
  });

  test('refuses while another process has it, with its number, and is free the moment that one is killed', async () => {
    const other = await another();
    expect(other.said).toBe('taken');
    writeFileSync(lock, '4711');
    expect(() => lockPlace(folder)).toThrow(/Another Veridon \(process 4711\)/);
    await other.kill();
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
  });

  test.each([
    ['a process that lives', String(process.ppid)],
    ['nothing sensible', 'half a'],
    ['nothing', ''],
  ])('a file left behind that names %s stops nobody', (_, left) => {
    writeFileSync(lock, left);
    lockPlace(folder);
    expect(readFileSync(lock, 'utf8')).toBe(String(process.pid));
  });

  test('of ten that grasp for it at the same moment, one gets it', async () => {
    const all = await Promise.all(Array.from({ length: 10 }, another));
    expect(all.map(({ said }) => said).sort()).toEqual([...Array<string>(9).fill('refused'), 'taken']);
    await Promise.all(all.map(({ kill }) => kill()));
  });
});
