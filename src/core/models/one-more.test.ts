import { blankImage, formatSchema, type Format } from '../format';
import { decodeImage, encodeImage, recognise } from '../image';
import { fit } from '../fit';
import { check } from '../check';
import { sideBySide } from '../organise';
import { channel, plan } from '../samples.test.kit';
import { addFormat, formatOf } from './formats';
import { addModel, face, findModels, modelSchema, type Model } from '.';
import { ternP2 } from './tern-p2';

/** One model more, as small as can be, of data alone: two slots, three letters, one tone. No code knows of it. */

const wren: Model = {
  ...ternP2,
  id: 'wren-1',
  name: 'Wren 1',
  maker: 'Brae',
  alsoSoldAs: [],
  summary: 'As small as can be',
  slots: { first: 5, count: 2 },
  names: { length: 3, characters: 'ABC ' },
  bands: [
    {
      name: '70 cm',
      receive: { from: 430_000_000, to: 440_000_000 },
      transmit: { from: 430_000_000, to: 440_000_000 },
    },
  ],
  steps: [25_000],
  modes: ['NFM'],
  powers: [{ label: 'On', milliwatts: 500 }],
  tones: [885],
  codes: [],
  oneTone: true,
  link: null,
  getReady: [{ what: 'Switch it on.', shows: 'ABC', part: 'switch' }],
};

const format: Format = {
  signature: { at: 0, text: 'WREN' },
  container: { kind: 'bytes', bytes: 32 },
  areas: [
    { name: 'What it is', from: 0, bytes: 4, owner: 'unit' },
    { name: 'Channels', from: 4, bytes: 28, owner: 'ours' },
  ],
  layouts: [
    {
      table: 'channels',
      at: 4,
      stride: 14,
      count: 2,
      first: 5,
      present: { kind: 'sentinel', field: 'rx' },
      row: {
        rx: { kind: 'bcd', at: 0, bytes: 4, unit: 10 },
        tx: { kind: 'bcd', at: 4, bytes: 4, unit: 10 },
        tone: { kind: 'tone', at: 8 },
        toneWay: { kind: 'choice', at: 9, shift: 0, width: 2, values: ['none', 'send', 'both'] },
        scan: { kind: 'flag', at: 9, bit: 2 },
        mode: { kind: 'choice', at: 9, shift: 3, width: 1, values: ['NFM', 'FM'] },
        name: { kind: 'text', at: 10, bytes: 3 },
      },
    },
  ],
  settings: [],
  checksums: [],
};

let takeAway: (() => void)[];
beforeAll(() => {
  takeAway = [addModel(wren), addFormat(wren.id, format)];
});
afterAll(() => takeAway.forEach((take) => take()));

const p = plan([
  channel(5, 433_500_000, { name: 'Calling', power: 4_000 }),
  channel(6, 433_525_000, {
    name: 'Bay',
    access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
    tx: 435_000_000,
  }),
  channel(7, 145_500_000, { name: 'Two metres' }),
]);

test('it is found, fitted, checked, shown, written and read', () => {
  expect(modelSchema.safeParse(wren).error).toBeUndefined();
  expect(formatSchema.safeParse(format).error).toBeUndefined();
  expect(findModels('wren')).toHaveLength(1);
  const fitted = fit(p, wren);
  expect(fitted.channels.map(({ slot, name, mode, power }) => [slot, name, mode, power])).toEqual([
    [5, 'CA', 'NFM', 500],
    [6, 'BA', 'NFM', 500],
  ]);
  expect(fitted.leftOut.map(({ obstacles }) => obstacles)).toEqual([['slot', 'receive range']]);
  expect(check(p, wren).some(({ rule }) => rule === 'slot-out-of-range')).toBe(true);
  expect(face(fitted.channels[1]!, wren, true, 'orrin')).toMatchObject({ large: '435.0000', sending: true });
  const channels = fitted.channels.map(({ id: _, ...held }) => held);
  const image = encodeImage({ channels, settings: {} }, blankImage(formatOf(wren)), wren);
  // 43350000 and 43500000 with their pairs turned round; the tone is the first, sent; in the scan
  expect(Buffer.from(image.subarray(18, 31)).toString('hex')).toBe(
    '00253543' + '00005043' + '01' + '05' + '424120',
  );
  const known = recognise([{ name: 'x', bytes: image }]);
  expect(known).toMatchObject({ ok: true, value: { model: { id: 'wren-1' }, faults: [] } });
  expect(decodeImage(image, wren)).toMatchObject({ ok: true, value: { channels } });
  expect(sideBySide(p, [{ model: wren }]).columns[0]).toMatchObject({ changed: 2, leftOut: 1 });
});
