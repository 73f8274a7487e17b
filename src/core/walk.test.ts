import { existsSync, readFileSync } from 'node:fs';
import { writeField } from './format';

/** docs/walk.md: every step is a file and a function that exist, and the last byte is what it says. */

const steps = [...readFileSync('docs/walk.md', 'utf8').matchAll(/^\| (\d) \| `([^`]+)`, `([^`]+)` \|/gm)].map(
  ([, n, file, name]) => [Number(n), file!, name!] as const,
);

test('the walk has at most nine steps, numbered from one', () => {
  expect(steps.map(([n]) => n)).toEqual(steps.map((_, index) => index + 1));
  expect(steps.length).toBeGreaterThan(4);
  expect(steps.length).toBeLessThanOrEqual(9);
});

test.each(steps)('step %d: %s has %s', (_, file, name) => {
  expect(existsSync(file)).toBe(true);
  expect(readFileSync(file, 'utf8')).toMatch(
    new RegExp(`(export (async )?function|export const|^(async )?function|^const) ${name}\\b`, 'm'),
  );
});

test('the bytes of the last step are those of the codec', () => {
  const bytes = new Uint8Array(4);
  writeField(bytes, 0, { kind: 'bcd', at: 0, bytes: 4, unit: 10 }, 145_612_500, {
    tones: [],
    codes: [],
    characters: '',
  });
  expect(
    Buffer.from(bytes)
      .toString('hex')
      .replace(/(..)(?!$)/g, '$1 '),
  ).toBe('50 12 56 14');
  expect(readFileSync('docs/walk.md', 'utf8')).toContain('50 12 56 14');
});
