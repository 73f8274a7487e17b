import { blankImage, settingCodecSchema } from '../format';
import { MODELS } from '../models';
import { formatOf } from '../models/formats';
import { curlewX1 } from '../models/curlew-x1';
import { petrelHF9 } from '../models/petrel-hf9';
import {
  decodeImage,
  encodeImage,
  holdsSetting,
  imageForAnother,
  ownFault,
  ownedMask,
  restartFor,
  settingDisagreements,
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
    expect([
      model.id,
      settingsOfModel(model).flatMap(({ key, scope }) => (scope === 'unit' ? [key] : [])),
    ]).toEqual([model.id, UNIT_OWN[model.id]]);
});

test('the own ID of a digital radio can be set, from 1 to 16,776,415', () => {
  for (const id of ['osprey-d7', 'kestrel-c1']) {
    const model = MODELS.find((one) => one.id === id)!;
    // docs/models/kestrel-c1.md: every setting of its page, in the order of the bytes.
    expect(settingsOfModel(model).map(({ name }) => name)).toEqual([
      ...['Own ID', 'Own call sign', 'Display shows', 'Key beep', 'Time-out timer'],
      ...['Talker alias', 'Power-on text'],
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
      'Own ID cannot be “16776416”: it is a whole number from 1 to 16,776,415.',
    );
    expect(ownFault(model, { beep: true })).toBe(`A ${model.name} has no value “beep” of its own.`);
    expect(ownFault(model, { radioId: 1, greeting: 'TEAM 2' })).toBeNull();
  }
});

test('the settings of every model and the bytes of its format agree', () => {
  for (const model of MODELS) expect([model.id, settingDisagreements(model)]).toEqual([model.id, []]);
});

test('only values that a person can set alone are settings', () => {
  const is = (codec: object) => settingCodecSchema.safeParse(codec).success;
  expect(is({ kind: 'text', at: 0, bytes: 4 })).toBe(true);
  expect(is({ kind: 'bits', at: 0, count: 8, first: 0 })).toBe(false);
  expect(is({ kind: 'series', count: 2, stride: 1, of: { kind: 'squelch', at: 0 } })).toBe(false);
});

test('the stored shifts of a model come from the factory as its channels are worked out', () => {
  for (const model of MODELS)
    for (const { setting, usual } of model.storedShifts)
      expect([setting, settingsOfModel(model).find(({ key }) => key === setting)?.default]).toEqual([
        setting,
        usual,
      ]);
});

test('every value that a setting may have can be written and is read again', () => {
  for (const model of MODELS)
    for (const { key, value: kind } of settingsOfModel(model)) {
      const values: (string | number | boolean)[] =
        kind.kind === 'choice'
          ? kind.values
          : kind.kind === 'switch'
            ? [false, true]
            : kind.kind === 'text'
              ? ['', 'A'.repeat(kind.length)]
              : kind.kind === 'number'
                ? [kind.least, kind.most]
                : [];
      expect(values.length).toBeGreaterThan(0);
      for (const value of values) {
        expect([model.id, key, value, holdsSetting(model, key, value)]).toEqual([model.id, key, value, true]);
        const image = encodeImage(
          { channels: [], settings: { [key]: value } },
          blankImage(formatOf(model)),
          model,
        );
        const read = decodeImage(image, model);
        expect(read.ok && read.value.settings[key]).toBe(value);
      }
      if (kind.kind === 'text') expect(holdsSetting(model, key, 'A'.repeat(kind.length + 1))).toBe(false);
      if (kind.kind === 'number') expect(holdsSetting(model, key, kind.most + kind.step)).toBe(false);
      expect(holdsSetting(model, key, 'no such value at all, and far too long')).toBe(false);
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
    'Shift on 2 m cannot be “600.5 kHz”: it is a whole number from 0 to 999,999 kHz.',
  );
  expect(settingsFault({}, petrel({ volume: 3 }))).toContain('no setting “volume”');
  expect(settingsFault({}, { none: {} })).toContain('a model “none”');
  const odd = petrel({ volume: 3 });
  expect(settingsFault(odd, { 'petrel-hf9': { ...odd['petrel-hf9'], beep: true } })).toBeNull();
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
