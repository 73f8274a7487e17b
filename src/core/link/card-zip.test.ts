import * as fc from '../property.test.kit';
import { zipSync } from 'fflate';
import { bytesOf } from '../image';
import { ploverF5 } from '../models/plover-f5';
import { cardFiles, cardOfZip, MANIFEST, readCard, zipOfCard, type Ident } from '.';

/** A card as one file: whole through a zip, whatever else was packed with it, and never more unpacked than a card is. */

const ident: Ident = {
  ...{ model: 'PLOVERF5', serial: 'OR520144', firmware: '1.12', region: 3, imageBytes: bytesOf(ploverF5) },
  ...{ halfWritten: false, battery: null, module: 0 },
};
const image = new Uint8Array(bytesOf(ploverF5)).fill(0x31);
const files = cardFiles(image, ident, ploverF5, 'RADIO');
const onCard = Object.fromEntries(files.map(({ name, bytes }) => [name, bytes]));

const readOf = (zip: Uint8Array) => {
  const found = cardOfZip(zip);
  return found.ok ? readCard(found.value) : found;
};

test('a card goes through a zip whole, and the same card is the same file', () => {
  const zip = zipOfCard(files);
  // A zip begins with the header of its first file (PKWARE APPNOTE 4.3.7).
  expect([...zip.subarray(0, 4)]).toEqual([0x50, 0x4b, 3, 4]);
  expect(Buffer.compare(zip, zipOfCard(files))).toBe(0);
  expect(readOf(zip)).toMatchObject({ kind: 'whole', ident: { serial: 'OR520144' }, image });
});

test('its files may lie in a folder, in small letters, beside anything else', () => {
  const packed = Object.fromEntries(
    Object.entries(onCard).map(([name, bytes]) => [`my card/PLOVER/${name.toLowerCase()}`, bytes]),
  );
  const others = {
    'my card/holiday.jpeg': new Uint8Array(70_000),
    'RADIO.TXT': new TextEncoder().encode('of another card'),
    'my card/PLOVER/deeper/SET.TXT': new Uint8Array(9),
    '../SET.TXT': new Uint8Array(9),
  };
  const found = cardOfZip(zipSync({ ...others, ...packed }));
  expect(found.ok && [...found.value.keys()].sort()).toEqual([
    'BANK.TXT',
    'CARD.TXT',
    'CHAN.TXT',
    'RADIO.TXT',
    'SET.TXT',
  ]);
  expect(found.ok && readCard(found.value).kind).toBe('whole');
});

test.each([
  ['no zip', new TextEncoder().encode('Greetings from the isles'), 'no zip archive'],
  ['nothing', new Uint8Array(), 'no zip archive'],
  ['a zip of pictures', zipSync({ 'a.jpg': image }), `no ${MANIFEST}`],
  [
    'two cards',
    zipSync({ 'a/CARD.TXT': onCard[MANIFEST]!, 'b/CARD.TXT': onCard[MANIFEST]! }),
    'more than one card',
  ],
])('%s is said to be so', (_what, zip, words) => {
  const found = cardOfZip(zip);
  expect(!found.ok && found.reason).toContain(words);
});

test('what claims to be larger than a file of a card is not unpacked', () => {
  // 3 MB of nothing pack to 3 kB.
  const found = cardOfZip(zipSync({ ...onCard, 'CHAN.TXT': new Uint8Array(3_000_000) }));
  expect(found.ok && found.value.has('CHAN.TXT')).toBe(false);
  expect(readOf(zipSync({ ...onCard, 'CHAN.TXT': new Uint8Array(3_000_000) }))).toMatchObject({
    kind: 'half',
    reason: expect.stringContaining('CHAN.TXT is missing') as string,
  });
});

test('cut off or spoilt anywhere it is refused, or half a card, or the card: never another', () => {
  const zip = zipOfCard(files);
  const reached = fc.tally();
  fc.assert(
    fc.property(fc.nat({ max: zip.length - 1 }), fc.boolean(), fc.nat({ max: 7 }), (at, cut, bit) => {
      const spoilt = cut ? zip.slice(0, at) : zip.slice();
      if (!cut) spoilt[at]! ^= 1 << bit;
      const found = cardOfZip(spoilt);
      if (!found.ok) return reached.count('refused');
      const read = readCard(found.value);
      reached.count(read.kind);
      if (read.kind === 'whole') expect(Buffer.compare(read.image, image)).toBe(0);
    }),
    { numRuns: 400 },
  );
  for (const kind of ['refused', 'half', 'whole']) reached.expectTimes(kind, 6);
});
