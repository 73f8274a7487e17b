import { kestrelC1 } from '../core/models/kestrel-c1';
import { dataFolder } from './data-folder.test.kit';
import { radioOf, seeRadio } from './radios';
import { setUnitValues, unitValuesOf } from './unit-values';

/** The values of one unit: checked, saved, logged. */

dataFolder('unit-values');

const seen = (serial: string) =>
  seeRadio(
    {
      ...{ model: 'KESTREL1', serial, firmware: '1.12', region: 1, imageBytes: 65_536 },
      ...{ halfWritten: false, battery: null, module: 0 },
    },
    kestrelC1,
  );

test('a value is saved for its unit alone, and the log has what it was before', async () => {
  const [one, two] = [await seen('CV1'), await seen('CV2')];
  await setUnitValues(one, { radioId: 1_160_073, greeting: 'TEAM 1' });
  await setUnitValues(two, { radioId: 1_160_091 });
  await setUnitValues(one, { radioId: 1_160_074 });
  const { own, log } = await unitValuesOf(one);
  expect(own).toEqual({ radioId: 1_160_074 });
  // Newest first; within one change in the order of the values.
  expect(log.map(({ key, value }) => [key, value])).toEqual([
    ['greeting', null],
    ['radioId', 1_160_074],
    ['greeting', 'TEAM 1'],
    ['radioId', 1_160_073],
  ]);
  expect((await unitValuesOf(two)).own).toEqual({ radioId: 1_160_091 });
  // What is set again as it is leaves no entry.
  await setUnitValues(one, { radioId: 1_160_074 });
  expect((await unitValuesOf(one)).log).toHaveLength(4);
});

test.each([
  ['an ID above the highest', { radioId: 16_776_416 }, 'Own ID cannot be “16776416”'],
  ['an ID of 0', { radioId: 0 }, 'Own ID cannot be “0”'],
  [
    'a greeting that is too long',
    { greeting: 'SEVENTEEN LETTERS' },
    'Power-on text cannot be “SEVENTEEN LETTERS”',
  ],
  ['a setting that every unit may share', { beep: true }, 'has no value “beep” of its own'],
  ['a setting that it does not have', { volume: 3 }, 'has no value “volume” of its own'],
])('%s is refused, and nothing is changed', async (_what, values, said) => {
  const id = await seen('CV3');
  await setUnitValues(id, { radioId: 5 });
  await expect(setUnitValues(id, { greeting: 'NEW', ...values })).rejects.toMatchObject({
    ...{ status: 422, kind: 'unit-values' },
    detail: expect.stringMatching(/^CV3: .*Nothing was changed\.$/) as string,
  });
  await expect(setUnitValues(id, values)).rejects.toThrow(said);
  expect((await radioOf(id)).own).toEqual({ radioId: 5 });
});
