import * as fc from '../property.test.kit';
import { bytesOf } from '../image';
import { ploverF5 } from '../models/plover-f5';
import {
  cardFiles,
  LOADED,
  loadedMark,
  MANIFEST,
  namesOnCard,
  readCard,
  type CardFiles,
  type Ident,
} from '.';

/** A card, to the byte, and what becomes of one that somebody takes out in the middle. */

const text = (...lines: string[]) => new TextEncoder().encode(lines.map((line) => `${line}\r\n`).join(''));
// CRC-32 of the nine figures is CBF43926 (ISO/IEC 8802-3, the usual check value).
const FIGURES = new TextEncoder().encode('123456789');
const manifest = (more: { state?: string; files?: string[]; end?: string[] } = {}) =>
  text(
    ...['CARD 1', 'IDENT OTHERSET', 'SERIAL ZZ000001', 'FIRMWARE 1.12', 'REGION 3'],
    `STATE ${more.state ?? 'WHOLE'}`,
    'BY RADIO',
    ...(more.files ?? ['FILE ONE.TXT 9 CBF43926']),
    ...(more.end ?? ['END']),
  );
const card = (files: Record<string, Uint8Array>): CardFiles => new Map(Object.entries(files));

test('a card says whose it is, and holds what its files hold, one after the other', () => {
  expect(readCard(card({ [MANIFEST]: manifest(), 'ONE.TXT': FIGURES }))).toEqual({
    kind: 'whole',
    by: 'RADIO',
    loaded: false,
    image: FIGURES,
    ident: {
      ...{ model: 'OTHERSET', serial: 'ZZ000001', firmware: '1.12', region: 3, imageBytes: 9 },
      ...{ halfWritten: false, battery: null, module: 0 },
    },
  });
});

test.each([
  ['nothing at all', {}, 'none', 'There is nothing of a radio'],
  ['pictures', { 'HILL.JPG': FIGURES }, 'none', 'it has no CARD.TXT'],
  [
    'one file twice',
    {
      [MANIFEST]: manifest({ files: ['FILE ONE.TXT 9 CBF43926', 'FILE ONE.TXT 9 CBF43926'] }),
      'ONE.TXT': FIGURES,
    },
    'none',
    'one of them twice',
  ],
  [
    'lengths of a gigabyte',
    {
      [MANIFEST]: manifest({
        files: Array.from({ length: 40 }, (_, n) => `FILE F${n}.TXT 9999999 CBF43926`),
      }),
    },
    'none',
    'more files than a card has',
  ],
  ['another CARD.TXT', { [MANIFEST]: text('Greetings from the isles') }, 'none', 'is not of a radio'],
  ['half a CARD.TXT', { [MANIFEST]: manifest({ end: [] }), 'ONE.TXT': FIGURES }, 'none', 'copied in part'],
  ['a file less', { [MANIFEST]: manifest() }, 'half', 'ONE.TXT is missing'],
  ['half a file', { [MANIFEST]: manifest(), 'ONE.TXT': FIGURES.slice(0, 5) }, 'half', '5 of 9 bytes'],
  [
    'a worn-out card',
    { [MANIFEST]: manifest(), 'ONE.TXT': FIGURES.with(3, 0) },
    'half',
    'ONE.TXT is not what it was',
  ],
  [
    'one that is being written',
    { [MANIFEST]: manifest({ state: 'COPYING' }), 'ONE.TXT': FIGURES },
    'half',
    'did not come to an end',
  ],
])('%s is told from a card of a radio, in words', (_what, files, kind, reason) => {
  const read = readCard(card(files as Record<string, Uint8Array>));
  expect(read).toMatchObject({ kind, reason: expect.stringContaining(reason) as string });
  // Of half a card one knows whose it is.
  expect('ident' in read && read.ident.serial).toBe(kind === 'half' && 'ZZ000001');
});

const ident: Ident = {
  ...{ model: 'PLOVERF5', serial: 'OR520144', firmware: '1.12', region: 3, imageBytes: bytesOf(ploverF5) },
  ...{ halfWritten: false, battery: null, module: 0 },
};
const image = (fill: number) => new Uint8Array(bytesOf(ploverF5)).fill(fill);
const written = (fill: number, by: 'RADIO' | 'COMPUTER') =>
  new Map(cardFiles(image(fill), ident, ploverF5, by).map(({ name, bytes }) => [name, bytes]));

test('a firmware of more figures is read too; of other files on a card nothing is looked at', () => {
  const newer = new TextEncoder().encode(
    new TextDecoder().decode(manifest()).replace('FIRMWARE 1.12', 'FIRMWARE 10.12'),
  );
  expect(readCard(card({ [MANIFEST]: newer, 'ONE.TXT': FIGURES }))).toMatchObject({
    kind: 'whole',
    ident: { firmware: '10.12' },
  });
  expect(namesOnCard(manifest())).toEqual(['ONE.TXT', LOADED]);
  expect([namesOnCard(undefined), namesOnCard(text('Greetings'))]).toEqual([[], []]);
});

test('its files are the radio’s own, by name and length; it is said first that it is being written, last that it is whole', () => {
  expect(
    cardFiles(image(0x31), ident, ploverF5, 'COMPUTER').map(({ name, bytes }) => [name, bytes.length]),
  ).toEqual([
    // 8 + 16 + 17 + 15 + 10 + 15 + 13, the files' lines 29 + 27 + 28 + 30, and 5; WHOLE is two less than COPYING.
    ['CARD.TXT', 213],
    // Lines of 32, 32, 20 and 90 signs and two for the end of each.
    ['RADIO.TXT', 3 * 34],
    ['SET.TXT', 8 * 34],
    ['BANK.TXT', 20 * 22],
    ['CHAN.TXT', 800 * 92],
    ['CARD.TXT', 211],
  ]);
});

test('taken out at whatever byte of a write, a card is the old one, the new one, or half; and whose it is is known', () => {
  const steps = cardFiles(image(0x32), ident, ploverF5, 'COMPUTER');
  const total = steps.reduce((sum, { bytes }) => sum + bytes.length, 0);
  const reached = fc.tally();
  // The edges of the files are where it matters; the rest is anywhere.
  const edges = steps.reduce<number[]>((all, { bytes }) => [...all, all.at(-1)! + bytes.length], [0]);
  const places = fc.oneof(
    fc.nat({ max: total }),
    fc.constantFrom(...edges.flatMap((at) => [at - 1, at, at + 1])),
  );
  fc.assert(
    fc.property(places, fc.boolean(), (place, beside) => {
      const files = new Map(written(0x31, 'RADIO'));
      let left = Math.max(0, place);
      for (const { name, bytes } of steps) {
        if (left >= bytes.length) files.set(name, bytes);
        // Some put a file there once it is whole, others write over what is there.
        else if (left > 0 && !beside) files.set(name, bytes.slice(0, left));
        left -= bytes.length;
        if (left < 0) break;
      }
      const read = readCard(files);
      const is = read.kind === 'whole' ? (read.image[0] === 0x31 ? 'old' : 'new') : read.kind;
      reached.count(is);
      if (read.kind === 'whole')
        expect(Buffer.compare(read.image, image(is === 'old' ? 0x31 : 0x32))).toBe(0);
      if (read.kind === 'half') expect(read.ident).toMatchObject({ serial: 'OR520144', halfWritten: true });
      // Only of a CARD.TXT that was written over in the middle nothing is known.
      if (read.kind === 'none') expect(beside).toBe(false);
      if (place >= total) expect(is).toBe('new');
      if (place <= 0) expect(is).toBe('old');
    }),
    { numRuns: 200 },
  );
  for (const kind of ['old', 'half', 'none', 'new']) reached.expectTimes(kind, 1);
});

test('one bit that is otherwise, anywhere on the card, and nothing of it is taken for a radio’s memory', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...written(0x31, 'RADIO').keys()),
      fc.nat(),
      fc.nat({ max: 7 }),
      (name, at, bit) => {
        const files = new Map(written(0x31, 'RADIO'));
        const bytes = files.get(name)!.slice();
        bytes[at % bytes.length]! ^= 1 << bit;
        files.set(name, bytes);
        const read = readCard(files);
        // What CARD.TXT says of the unit can be another, and then it is of another unit; the memory is the same.
        if (read.kind === 'whole') {
          expect(name).toBe(MANIFEST);
          expect(Buffer.compare(read.image, image(0x31))).toBe(0);
        }
      },
    ),
    { numRuns: 80 },
  );
});

test('a radio that has loaded a card leaves its mark on it, which holds for no other', () => {
  const files = written(0x32, 'COMPUTER');
  expect(readCard(files)).toMatchObject({ kind: 'whole', by: 'COMPUTER', loaded: false });
  const mark = loadedMark(files.get(MANIFEST)!);
  expect(readCard(new Map([...files, [LOADED, mark]]))).toMatchObject({ loaded: true });
  expect(readCard(new Map([...written(0x33, 'COMPUTER'), [LOADED, mark]]))).toMatchObject({ loaded: false });
});
