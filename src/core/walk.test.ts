import { existsSync, readFileSync } from 'node:fs';
import { contentToWrite } from './check';
import { blankImage, writeField } from './format';
import { encodeImage } from './image';
import { formatOf } from './models/formats';
import { ternP2 } from './models/tern-p2';
import { plan as emptyPlan } from './samples.test.kit';

/** docs/walk.md: every step is a file and a function that exist, and the last byte is what it says. */

const walks = readFileSync('docs/walk.md', 'utf8')
  .split(/^## /m)
  .slice(1)
  .map((walk) => ({
    title: walk.slice(0, walk.indexOf('\n')),
    steps: [...walk.matchAll(/^\| (\d) \| `([^`]+)`, `([^`]+)` \|/gm)].map(
      ([, n, file, name]) => [Number(n), file!, name!] as const,
    ),
  }));

test('there are three walks', () =>
  expect(walks.map(({ title }) => title)).toEqual([
    'A frequency to the byte',
    'A setting to the byte',
    'A finding to the row',
  ]));

test.each(walks)('$title has at most nine steps, numbered from one', ({ steps }) => {
  expect(steps.map(([n]) => n)).toEqual(steps.map((_, index) => index + 1));
  expect(steps.length).toBeGreaterThan(4);
  expect(steps.length).toBeLessThanOrEqual(9);
});

test.each(walks.flatMap(({ title, steps }) => steps.map((step) => [title, ...step] as const)))(
  '%s, step %d: %s has %s',
  (_title, _n, file, name) => {
    expect(existsSync(file)).toBe(true);
    expect(readFileSync(file, 'utf8')).toMatch(
      new RegExp(`(export (async )?function|export const|^(async )?function|^const) ${name}\\b`, 'm'),
    );
  },
);

test('the bytes at the end of a frequency’s walk are those of the codec', () => {
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

test('the byte at the end of a setting’s walk is the one of the radio’s memory', () => {
  const plan = { ...emptyPlan([]), modelId: 'tern-p2', settings: { 'tern-p2': { squelch: 7 } } };
  const before = blankImage(formatOf(ternP2));
  // 0x81 of the settings, which have a place of their own in the image: it is where squelch 3 and 7 differ.
  const image = (squelch: number) => encodeImage({ channels: [], settings: { squelch } }, before, ternP2);
  const at = image(3).findIndex((byte, n) => byte !== image(7)[n]);
  const base = image(3);
  base[at]! |= 0xf0;
  const { settings } = contentToWrite(plan, ternP2);
  expect(base[at]).toBe(0xf3);
  expect(encodeImage({ channels: [], settings }, base, ternP2)[at]).toBe(0xf7);
});
