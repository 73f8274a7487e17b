import { blankImage, type Format } from './format';
import { fit, settingFromRadio } from './fit';
import { compareBesides } from './compare';
import { addModel, MODELS, type Model } from './models';
import { addFormat, formatOf } from './models/formats';
import { addSettings } from './models/settings';
import { ternP2 } from './models/tern-p2';
import { applyEdit, idsOf, inverseOf, type ZoneId } from './plan';
import * as fc from './property.test.kit';
import { channel, plan } from './samples.test.kit';
import type { Setting } from './settings';
import { decodeImage, encodeImage, ownedMask, planOfContent, recognise, settingDisagreements } from './image';

/** A model with every kind of setting, in two layout versions of its memory. */
const wren: Model = {
  ...ternP2,
  ...{ id: 'wren-2', name: 'Wren 2', maker: 'Brae', alsoSoldAs: [], link: null },
  slots: { first: 1, count: 2 },
  zones: { count: 2, name: 4, word: 'bank' },
};

const setting = (key: string, value: Setting['value'], usual: Setting['default'] = null): Setting => ({
  ...{ key, scope: 'plan', topic: 'receive', name: key, help: '', value },
  default: usual,
});

const settings: Setting[] = [
  setting('beep', { kind: 'switch' }, true),
  setting('level', { kind: 'number', unit: '', scale: 1, least: 1, most: 9, step: 1 }, 3),
  setting('curve', { kind: 'curve', points: 3, unit: '', scale: 1, least: 0, most: 200, step: 1 }),
  setting('codes', { kind: 'list', count: 2, of: { kind: 'text', length: 3, characters: '0123456789' } }),
  setting('home', { kind: 'coordinate' }),
  setting('first', { kind: 'reference', to: 'zone' }),
  setting('shows', {
    kind: 'sides',
    sides: ['A', 'B'],
    of: { kind: 'choice', values: ['name', 'frequency'] },
  }),
];

const format: Format = {
  signature: { at: 0, text: 'WREN' },
  version: { at: 4, value: 2 },
  container: { kind: 'bytes', bytes: 64 },
  areas: [
    { name: 'What it is', from: 0, bytes: 5, owner: 'unit' },
    { name: 'Settings', from: 5, bytes: 59, owner: 'ours' },
  ],
  layouts: [
    {
      ...{ table: 'zones', at: 40, stride: 10, count: 2, first: 1 },
      present: { kind: 'bitmap', at: 60 },
      row: { name: { kind: 'text', at: 0, bytes: 4 }, slots: { kind: 'bits', at: 4, first: 1, count: 2 } },
    },
  ],
  settings: [
    { key: 'beep', codec: { kind: 'choice', at: 5, shift: 0, width: 2, values: [false, true] } },
    { key: 'level', codec: { kind: 'whole', at: 6, bytes: 1 } },
    {
      key: 'curve',
      since: 2,
      codec: { kind: 'series', count: 3, stride: 2, of: { kind: 'whole', at: 8, bytes: 1 } },
    },
    {
      key: 'codes',
      since: 2,
      codec: {
        ...{ kind: 'series', count: 2, stride: 3, open: true },
        of: { kind: 'text', at: 14, bytes: 3, characters: '0123456789' },
      },
    },
    { key: 'home', since: 2, codec: { kind: 'coordinate', at: 20 } },
    { key: 'first', since: 2, codec: { kind: 'whole', at: 28, bytes: 2 } },
    {
      key: 'shows',
      since: 2,
      codec: {
        ...{ kind: 'series', count: 2, stride: 1 },
        of: { kind: 'choice', at: 30, shift: 4, width: 2, values: ['name', 'frequency'] },
      },
    },
  ],
  checksums: [],
};

let takeAway: (() => void)[];
beforeAll(() => {
  takeAway = [addModel(wren), addFormat(wren.id, format), addSettings(wren.id, settings)];
});
afterAll(() => takeAway.forEach((take) => take()));

const ALL = {
  ...{ beep: true, level: 9, curve: [0, 7, 200], codes: ['12', '345'] },
  home: { lat: 52.5, lon: -29.25 },
  ...{ first: 2, shows: ['frequency', 'name'] },
};

let drawn = 0;
const counted = () => Uint8Array.from({ length: 8 }, () => drawn++);

const bytesOf = (image: Uint8Array, from: number, to: number) =>
  Buffer.from(image.subarray(from, to)).toString('hex');

const settingsRead = (image: Uint8Array) => {
  const read = decodeImage(image, wren);
  if (!read.ok) throw new Error(read.reason);
  return { settings: read.value.settings, unknown: read.value.unknown, note: read.note };
};

test('every kind of value lies in its bytes, and is read again', () => {
  expect(settingDisagreements(wren)).toEqual([]);
  const image = encodeImage({ channels: [], settings: ALL }, blankImage(format), wren);
  // Beep on, level 9; 0, 7, 200 in every other byte; “12 ” and “345”.
  expect(bytesOf(image, 5, 20)).toBe('0109' + '00' + '000007' + '00c8' + '00' + '313220' + '333435');
  // 52,500,000 and -29,250,000 millionths: 0x03211620 and 0xfe41ae30 with the lowest byte first; bank 2; frequency, name from bit 4 up.
  expect(bytesOf(image, 20, 32)).toBe('20162103' + '30ae41fe' + '0200' + '1000');
  expect(settingsRead(image)).toMatchObject({ settings: ALL, unknown: undefined, note: undefined });
  const empty = encodeImage({ channels: [], settings: { codes: [] } }, image, wren);
  expect(bytesOf(empty, 14, 20)).toBe('202020202020');
  // All bits set: no place.
  empty.fill(0xff, 20, 28);
  expect(settingsRead(empty).settings).toMatchObject({ codes: [], home: null });
});

test('an image of layout 1 has the settings of layout 1, and keeps all else over a write', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 64, maxLength: 64 }), (noise) => {
      const base = Uint8Array.from(noise);
      base.set(blankImage(format).subarray(0, 4));
      base[4] = 1;
      const image = encodeImage({ channels: [], settings: ALL }, base, wren);
      expect([image[5]! & 3, image[6]]).toEqual([1, 9]);
      expect(bytesOf(image, 7, 40)).toBe(bytesOf(base, 7, 40));
      const mask = ownedMask(wren, 1);
      for (let at = 0; at < 64; at++) expect((image[at]! ^ base[at]!) & ~mask[at]! & 0xff).toBe(0);
      expect(Object.keys(settingsRead(image).settings).sort()).toEqual(['beep', 'level']);
    }),
  );
  const layout = (version: number) => {
    const image = blankImage(format);
    image[4] = version;
    const known = recognise([{ name: 'x', bytes: image }]);
    return known.ok && known.value.faults;
  };
  expect([layout(1), layout(2)]).toEqual([[], []]);
  expect([layout(0), layout(3)]).toEqual([
    ['Its memory has layout 0, and Veridon knows layouts up to 2: a newer radio, or newer software in it.'],
    ['Its memory has layout 3, and Veridon knows layouts up to 2: a newer radio, or newer software in it.'],
  ]);
});

test('a byte that is no value of its setting is said, and survives a write of the others', () => {
  const image = encodeImage({ channels: [], settings: ALL }, blankImage(format), wren);
  // No third value of the switch; a level above 9; digits that are letters.
  image[5] = 0xf7;
  image[6] = 0x0a;
  image.set([0x41, 0x42], 17);
  const read = settingsRead(image);
  expect(read.unknown).toEqual({ beep: '0xF7', level: '0x0A', codes: '0x313220414235' });
  expect(Object.keys(read.settings).sort()).toEqual(['curve', 'first', 'home', 'shows']);
  expect(read.note).toBe(
    'Not understood and left as it is: beep (0xF7), codes (0x313220414235), level (0x0A).',
  );
  const written = encodeImage({ channels: [], settings: { shows: ['name', 'name'] } }, image, wren);
  expect([written[5], written[6], bytesOf(written, 14, 20)]).toEqual([0xf7, 0x0a, '313220414235']);
  const content = decodeImage(image, wren);
  if (!content.ok) throw new Error(content.reason);
  // What a write would make of it names the bytes.
  expect(
    compareBesides(content.value, { channels: [], settings: { level: 4 } }, wren).map(({ text }) => text),
  ).toEqual(['4, was unknown (0x0A)']);
});

test('any byte of any setting of any model survives a write that does not name it', () => {
  let unknown = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...MODELS),
      fc.nat(),
      fc.uint8Array({ minLength: 16, maxLength: 16 }),
      (model, which, noise) => {
        const { settings: placed } = formatOf(model);
        const one = placed[which % placed.length];
        if (!one) return;
        const before = encodeImage({ channels: [], settings: {} }, blankImage(formatOf(model)), model);
        const spoilt = Uint8Array.from(before);
        const mask = ownedMask(model);
        const at = 'at' in one.codec ? one.codec.at : 0;
        for (let n = 0; n < 16; n++) if (mask[at + n]) spoilt[at + n] = noise[n]!;
        const read = decodeImage(spoilt, model, { damaged: true });
        if (!read.ok) throw new Error(read.reason);
        if (read.value.unknown) unknown++;
        const after = encodeImage({ channels: [], settings: {} }, spoilt, model);
        const back = decodeImage(after, model);
        if (!back.ok) throw new Error(back.reason);
        expect(back.value.settings).toEqual(read.value.settings);
        expect(back.value.unknown).toEqual(read.value.unknown);
      },
    ),
    { numRuns: 200 },
  );
  fc.expectReached('unknown', unknown, 20);
});

test('a setting refers to a record: by number in the radio, by id in the plan, and goes with it', () => {
  const [hills, bay] = ['zo_hills', 'zo_bay'] as ZoneId[];
  const zones = [hills!, bay!].map((id) => ({ id, name: id.slice(3), members: [] }));
  const own = {
    ...plan([channel(1, 433_500_000)]),
    ...{ modelId: wren.id, zones },
    settings: { [wren.id]: { first: { kind: 'zone' as const, id: bay! } } },
  };
  expect(fit(own, wren).settings).toEqual({ first: 2 });
  // What the radio says of its second bank is the plan's second zone; it has no third.
  expect([1, 2, 3, 0].map((number) => settingFromRadio(own, wren, 'first', number))).toEqual([
    { kind: 'zone', id: hills },
    { kind: 'zone', id: bay },
    null,
    null,
  ]);
  const without = applyEdit(own, { name: 'remove', kind: 'zone', ids: [hills!] });
  if (!without.ok) throw new Error(without.reason);
  expect(fit(without.value, wren).settings).toEqual({ first: 1 });
  const none = applyEdit(own, { name: 'remove', kind: 'zone', ids: [bay!] });
  if (!none.ok) throw new Error(none.reason);
  expect(none.value.settings).toEqual({});
  // Undo brings both back.
  const undone = applyEdit(none.value, inverseOf(own, none.value));
  expect(undone.ok && undone.value.settings).toEqual(own.settings);
  // A zone that is not there cannot be named.
  expect(
    applyEdit(none.value, {
      name: 'set',
      settings: { [wren.id]: { first: { kind: 'zone', id: bay! } } },
    }),
  ).toMatchObject({ ok: false, reason: 'A setting names zo_bay, and there is no such zone in the plan.' });
  const read = decodeImage(
    encodeImage(
      {
        ...{ channels: [], settings: { first: 2 } },
        zones: [1, 2].map((number) => ({ list: 0, number, name: 'A', slots: [] })),
      },
      blankImage(format),
      wren,
    ),
    wren,
  );
  if (!read.ok) throw new Error(read.reason);
  const made = planOfContent(read.value, wren, idsOf(counted));
  expect(made.settings[wren.id]!.first).toEqual({ kind: 'zone', id: made.zones[1]!.id });
});
