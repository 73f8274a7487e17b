import { blankImage, settingSchema } from '../format';
import { MODELS } from '../models';
import { formatOf } from '../models/formats';
import { curlewX1 } from '../models/curlew-x1';
import { petrelHF9 } from '../models/petrel-hf9';
import { settingWords } from './setting-words';
import {
  decodeImage,
  encodeImage,
  holdsSetting,
  imageForAnother,
  ownFault,
  ownedMask,
  restartFor,
  settingsFault,
  settingsOfModel,
} from '.';
import { anyContentOf, anyImageOf } from '../contents.test.kit';
import * as fc from '../property.test.kit';

/** The values of one unit, by the pages of docs/models. */
const UNIT_OWN: Record<string, string[]> = {
  'tern-p2': ['greeting'],
  'tern-p3': ['greeting'],
  'gannet-m8': ['greeting'],
  'petrel-hf9': ['greeting'],
  'plover-f5': ['ownCall'],
  'curlew-x1': ['aprsCall', 'greeting'],
  'osprey-d7': ['radioId', 'ownCall', 'greeting'],
  'kestrel-c1': ['radioId', 'ownCall', 'greeting'],
};

test('the values of one unit are those that its page names', () => {
  for (const model of MODELS)
    expect([model.id, settingsOfModel(model).flatMap(({ key, unitOwn }) => (unitOwn ? [key] : []))]).toEqual([
      model.id,
      UNIT_OWN[model.id],
    ]);
});

test('the own ID of a digital radio can be set, from 1 to 16,776,415', () => {
  for (const id of ['osprey-d7', 'kestrel-c1']) {
    const model = MODELS.find((one) => one.id === id)!;
    // docs/models/kestrel-c1.md: every setting of its page, in the order of the bytes.
    expect(settingsOfModel(model).map(({ label }) => label)).toEqual([
      ...['Own ID', 'Own call sign', 'The display shows', 'Key beep', 'Time-out, s'],
      ...['Tells its call sign with its speech', 'Greeting'],
    ]);
    expect([0, 1, 16_776_415, 16_776_416].map((ownId) => holdsSetting(model, 'radioId', ownId))).toEqual([
      ...[false, true, true, false],
    ]);
    // 1,160,091 is 0x11b39b, least significant byte first.
    const image = encodeImage(
      { channels: [], settings: { radioId: 1_160_091 } },
      blankImage(formatOf(model)),
      model,
    );
    expect([...image.subarray(0x100, 0x104)]).toEqual([0x9b, 0xb3, 0x11, 0x00]);
    expect(ownFault(model, { radioId: 16_776_416 })).toBe(
      'Own ID cannot be “16776416”: it is a whole number from 1 to 16776415.',
    );
    expect(ownFault(model, { beep: true })).toBe(`A ${model.name} has no value “beep” of its own.`);
    expect(ownFault(model, { radioId: 1, greeting: 'TEAM 2' })).toBeNull();
  }
});

test('a format with a setting that nobody could set is refused', () => {
  const setting = (codec: object, more = {}) =>
    settingSchema.safeParse({ key: 'a', label: 'A', codec, ...more });
  expect(setting({ kind: 'text', at: 0, bytes: 4 }).success).toBe(true);
  expect(setting({ kind: 'bits', at: 0, count: 8, first: 0 }).success).toBe(false);
  expect(setting({ kind: 'whole', at: 0, bytes: 2 }).success).toBe(false);
  expect(setting({ kind: 'whole', at: 0, bytes: 2 }, { within: { from: 0, to: 9 } }).success).toBe(true);
});

test('a setting of several words is said with all of them', () => {
  // docs/models/tern-p2.md: display of side A, as name, frequency or slot.
  const display = settingsOfModel(MODELS.find(({ id }) => id === 'tern-p2')!).find(
    ({ kind, ...info }) => kind === 'choice' && 'values' in info && info.values.includes('name'),
  );
  expect(display).toMatchObject({ kind: 'choice', values: ['name', 'frequency', 'slot'] });
});

test('whatever a setting is said to stand at can be written and is read again', () => {
  for (const model of MODELS)
    for (const info of settingsOfModel(model)) {
      const values =
        info.kind === 'choice'
          ? info.values
          : info.kind === 'text'
            ? ['', 'A'.repeat(info.length)]
            : [info.least || info.unit, info.most];
      for (const value of values) {
        expect([model.id, info.key, value, holdsSetting(model, info.key, value)]).toEqual([
          model.id,
          info.key,
          value,
          true,
        ]);
        const image = encodeImage(
          { channels: [], settings: { [info.key]: value } },
          blankImage(formatOf(model)),
          model,
        );
        const read = decodeImage(image, model);
        expect(read.ok && read.value.settings[info.key]).toBe(value);
      }
      if (info.kind !== 'choice') {
        const beyond = info.kind === 'text' ? 'A'.repeat(info.length + 1) : info.most + info.unit;
        expect(holdsSetting(model, info.key, beyond)).toBe(false);
      }
      expect(holdsSetting(model, info.key, 'no such value at all, and far too long')).toBe(false);
    }
});

test('what a radio cannot stand at is not written, and spoils nothing', () => {
  const blank = blankImage(formatOf(petrelHF9));
  const odd = encodeImage({ channels: [], settings: { shift2m: 1_234, nothing: 7 } }, blank, petrelHF9);
  expect(odd).toEqual(encodeImage({ channels: [], settings: {} }, blank, petrelHF9));
});

test('settings after whose change the Curlew wants a restart are named', () => {
  const blank = blankImage(formatOf(curlewX1));
  const set = (settings: Record<string, boolean | string>) =>
    encodeImage({ channels: [], settings }, blank, curlewX1);
  const before = set({ gnss: false, beep: false, aprs: 'off' });
  expect(restartFor(before, set({ gnss: true, beep: true, aprs: 'off' }), curlewX1)).toEqual([
    'GNSS receiver',
  ]);
  expect(restartFor(before, set({ gnss: false, beep: true, aprs: 'off' }), curlewX1)).toEqual([]);
});

test('what a plan sets must be what its radios can stand at; what was there before is left alone', () => {
  const petrel = (set: Record<string, string | number | boolean>) => ({ 'petrel-hf9': set });
  expect(settingsFault({}, petrel({ shift2m: 600_000, shows: 'name' }))).toBeNull();
  expect(settingsFault({}, petrel({ shift2m: 600_500 }))).toBe(
    'A Petrel HF9 has no setting “shift2m” that can stand at “600500”.',
  );
  expect(settingsFault({}, petrel({ volume: 3 }))).toContain('no setting “volume”');
  expect(settingsFault({}, { none: {} })).toContain('a model “none”');
  const odd = petrel({ volume: 3 });
  expect(settingsFault(odd, { 'petrel-hf9': { ...odd['petrel-hf9'], beep: true } })).toBeNull();
});

test('where a setting stands is said in words', () => {
  expect([true, false, 'Q7KET', '', null, 5].map((value) => settingWords(value))).toEqual([
    ...['on', 'off', 'Q7KET', 'nothing', 'nothing', '5'],
  ]);
  // a stored shift is a number of kilohertz
  expect(settingWords(600_000, 1000)).toBe('600 kHz');
  expect(settingWords(3, 1)).toBe('3');
});

test.each(MODELS.map((model) => [model.id, model] as const))(
  'of a copy of another %s all is taken but what is the unit’s own',
  (_id, model) => {
    const own = UNIT_OWN[model.id]!;
    const mask = ownedMask(model);
    let told = 0;
    fc.assert(
      fc.property(
        anyContentOf(model),
        anyContentOf(model),
        anyImageOf(model),
        anyImageOf(model),
        (theirs, ours, theirBytes, ourBytes) => {
          const from = encodeImage(theirs, theirBytes, model);
          const to = encodeImage(ours, ourBytes, model);
          const made = imageForAnother(from, to, model);
          if (!made.ok) throw new Error(made.reason);
          // Every bit that the format does not name is the unit’s.
          for (let at = 0; at < to.length; at++)
            if (((made.value[at]! ^ to[at]!) & ~mask[at]! & 0xff) !== 0) throw new Error(`byte ${at}`);
          const [is, was, wanted] = [made.value, to, from].map((image) => {
            const read = decodeImage(image, model);
            if (!read.ok) throw new Error(read.reason);
            return read.value;
          });
          expect(is!.channels).toEqual(wanted!.channels);
          for (const { key } of settingsOfModel(model)) {
            expect([key, is!.settings[key]]).toEqual([
              key,
              (own.includes(key) ? was : wanted)!.settings[key],
            ]);
            if (was!.settings[key] !== wanted!.settings[key]) told++;
          }
        },
      ),
      { numRuns: 15 },
    );
    fc.expectReached('told', told, 1);
  },
);
