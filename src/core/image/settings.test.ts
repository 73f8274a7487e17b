import { blankImage } from '../format';
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
  ownedMask,
  restartFor,
  settingsFault,
  settingsOfModel,
} from '.';
import { anyContentOf, anyImageOf } from '../contents.test.kit';
import * as fc from '../property.test.kit';

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
            : [info.unit, info.most];
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
    const own = settingsOfModel(model).flatMap(({ kind, key }) => (kind === 'text' ? [key] : []));
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
