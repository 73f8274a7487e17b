import * as fc from '../property.test.kit';
import { blankImage } from '../format';
import { MODELS, noContent, type Model } from '../models';
import { formatOf } from '../models/formats';
import { gannetM8 } from '../models/gannet-m8';
import { ploverF5 } from '../models/plover-f5';
import { bytesOf, decodeImage, encodeImage, fieldsAt, areasOf, filesOf, ownedMask, recognise } from '.';

const image = (model: Model) =>
  encodeImage(
    {
      ...noContent(),
      channels: [
        {
          list: 0,
          slot: 1,
          name: 'A',
          rx: 145_500_000,
          tx: null,
          send: null,
          expect: null,
          mode: 'FM',
          power: model.powers[0]!.milliwatts,
          scan: true,
        },
      ],
      settings: {},
    },
    blankImage(formatOf(model)),
    model,
  );
const one = (bytes: Uint8Array, name = 'anything.xyz') => recognise([{ name, bytes }]);

test('an image is known by its content, whatever it is called', () => {
  for (const model of MODELS) {
    const known = one(image(model));
    expect(known).toMatchObject({ ok: true, value: { model: { id: model.id }, faults: [] } });
  }
  expect(one(Uint8Array.from(Buffer.from('%PDF-1.7 and more')), 'tern-p2.bin')).toMatchObject({
    ok: false,
    reason: expect.stringContaining('no image of a radio that Veridon knows'),
  });
  expect(recognise([])).toMatchObject({ ok: false });
});

test('a wrong length, a wrong checksum and a newer layout are said; what can be read is read', () => {
  const whole = image(gannetM8);
  const short = one(whole.subarray(0, 0x2000));
  expect(short).toMatchObject({
    ok: true,
    value: {
      faults: ['It is of a Gannet M8, but has 8192 bytes and not 32768: 24576 bytes are missing at its end.'],
    },
  });
  const rescued = short.ok && decodeImage(short.value.image, gannetM8, { damaged: true });
  expect(rescued && rescued.ok && rescued.value.channels.map(({ name }) => name)).toEqual(['A']);
  const flipped = whole.slice();
  flipped[0x3000] = flipped[0x3000]! ^ 1;
  expect(one(flipped)).toMatchObject({ value: { faults: [expect.stringContaining('checksum')] } });
  const newer = whole.slice();
  newer[0x14] = 2;
  expect(one(newer)).toMatchObject({
    value: { faults: [expect.stringContaining('has layout 2, and Veridon knows layouts up to 1')] },
  });
  expect(one(Uint8Array.from([...whole, 0, 0, 0]))).toMatchObject({
    value: { faults: [expect.stringContaining('3 bytes too long')] },
  });
});

test('a card is its files, in any order, by the names that the radio gives them', () => {
  const files = filesOf(image(ploverF5), ploverF5).map(({ name, bytes }) => ({
    name: `CARD/${name!.toLowerCase()}`,
    bytes,
  }));
  expect(files.map(({ name }) => name)).toEqual([
    'CARD/radio.txt',
    'CARD/set.txt',
    'CARD/bank.txt',
    'CARD/chan.txt',
  ]);
  expect(recognise([...files].reverse())).toMatchObject({
    ok: true,
    value: { model: { id: 'plover-f5' }, faults: [] },
  });
  expect(recognise(files.filter(({ name }) => !name.includes('bank')))).toMatchObject({
    value: { faults: ['BANK.TXT is missing.'] },
  });
  // All files are there, and a line of one is too short.
  const broken = files.map(({ name, bytes }) => {
    const copy = Uint8Array.from(bytes);
    if (name.includes('chan')) copy[copy.length - 1] = 0x20;
    return { name, bytes: copy };
  });
  expect(recognise(broken)).toMatchObject({
    value: { faults: [expect.stringMatching(/^Line \d+ of CHAN\.TXT is not \d+ characters long\.$/)] },
  });
  expect(recognise(files.filter(({ name }) => !name.includes('radio')))).toMatchObject({
    ok: false,
    reason: expect.stringContaining('no card of a radio'),
  });
});

test('no file makes it throw', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...MODELS),
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { maxLength: 40 }),
      fc.integer({ min: -40, max: 40 }),
      (model, strikes, more) => {
        const bytes = Array.from(image(model));
        for (const [at, value] of strikes) bytes[at % bytes.length] = value;
        const struck = Uint8Array.from(
          more < 0 ? bytes.slice(0, more) : [...bytes, ...Array<number>(more).fill(7)],
        );
        const known = one(struck);
        if (!known.ok) return;
        const read = decodeImage(known.value.image, known.value.model, { damaged: true });
        expect(read.ok).toBe(true);
      },
    ),
  );
});

test('every byte of ours has a field that owns it, and no other has', () => {
  for (const model of MODELS) {
    const mask = ownedMask(model);
    const fields = fieldsAt(model, 0, bytesOf(model));
    const marks = new Set(formatOf(model).checksums.flatMap(({ at }) => [at, at + 1]));
    const bitmaps = formatOf(model).layouts.flatMap(({ present, count }) =>
      present.kind === 'bitmap' ? Array.from({ length: Math.ceil(count / 8) }, (_, n) => present.at + n) : [],
    );
    for (const at of bitmaps) marks.add(at);
    const without = [...mask.keys()].filter((at) => mask[at] !== 0 && !fields.has(at) && !marks.has(at));
    expect([model.id, without]).toEqual([model.id, []]);
    expect([...fields.keys()].every((at) => mask[at] !== 0)).toBe(true);
    expect(areasOf(model).reduce((sum, { bytes }) => sum + bytes, 0)).toBe(bytesOf(model));
  }
});
