import { contentToWrite } from './check';
import { compareBesides, compareStates } from './compare';
import { blankImage } from './format';
import { decodeImage, encodeImage } from './image';
import { MODELS, type Model } from './models';
import { formatOf } from './models/formats';
import { settingsOf } from './models/settings';
import { bringIn, fromRadio, moveToModel } from './organise';
import {
  applyEdit,
  difference,
  idsOf,
  inverseOf,
  isNoDifference,
  readDocument,
  rebaseEdit,
  type Edit,
  type Plan,
  type SettingValue,
} from './plan';
import { channel, id, plan, run } from './samples.test.kit';
import type { Setting } from './settings';

/** Every setting of every model by every place that handles settings: each is changed alone, and each place has to notice. */

/** Two values of a setting. A kind of value that is not named here fails. */
function valuesOf({ value }: Setting): [SettingValue, SettingValue] {
  switch (value.kind) {
    case 'choice':
      return [value.values[0]!, value.values[1]!];
    case 'switch':
      return [false, true];
    case 'number':
      return [value.least + value.step, value.least + 2 * value.step];
    case 'text':
      return ['A', 'B'];
    default:
      throw new Error(`No values of ${value.kind}`);
  }
}

const cases = MODELS.flatMap((model) => settingsOf(model).map((setting) => ({ model, setting })));
type Case = (typeof cases)[number];

const planFor = ({ model, setting: { key } }: Case, value: SettingValue): Plan => ({
  ...plan([channel(1, 145_500_000)]),
  modelId: model.id,
  settings: { [model.id]: { [key]: value } },
});
const setting = ({ model, setting: { key } }: Case, value: SettingValue): Edit => ({
  name: 'set',
  settings: { [model.id]: { [key]: value } },
});

const imageOf = (of: Plan, model: Model) =>
  encodeImage(contentToWrite(of, model), blankImage(formatOf(model)), model);
const contentOf = (image: Uint8Array, model: Model) => {
  const read = decodeImage(image, model);
  if (!read.ok) throw new Error(read.reason);
  return read.value;
};

/** Each place: true where it notices that the setting has its second value and no longer its first. */
const PLACES: Record<string, (one: Case, before: Plan, after: Plan, to: SettingValue) => boolean> = {
  edit: (one, before, after, to) => {
    const result = applyEdit(before, setting(one, to));
    expect(result).toEqual({ ok: true, value: after });
    return result.ok;
  },
  difference: (_, before, after) => !isNoDifference(difference(before, after)),
  undo: (_, before, after) => {
    expect(run(after, inverseOf(before, after))).toEqual(before);
    return true;
  },
  'two at once': (one, before, after, to) => !rebaseEdit(setting(one, to), before, after).ok,
  document: (_, _before, after) => {
    expect(readDocument(JSON.parse(JSON.stringify(after)))).toEqual({ ok: true, value: after });
    return true;
  },
  history: ({ setting: { name } }, before, after) =>
    compareStates(before, after, (model) => settingsOf({ id: model })).besides.some((said) =>
      said.startsWith(`${name} was `),
    ),
  'image of a radio': ({ model }, before, after) =>
    Buffer.compare(imageOf(before, model), imageOf(after, model)) !== 0,
  'preview of a write': ({ model, setting: { name } }, before, after) =>
    compareBesides(contentOf(imageOf(before, model), model), contentToWrite(after, model), model).some(
      ({ title }) => title === name,
    ),
  'keys of the radio': ({ model, setting: { name } }, before, after) => {
    const agreed = { plan: before, image: imageOf(before, model) };
    const heard = fromRadio(agreed, imageOf(after, model), before, model, 'X', () => id(50));
    return heard.ok && heard.value.said.some((said) => said.startsWith(`${name}: `));
  },
};

test.each(Object.keys(PLACES))('%s notices each setting of each model', (place) => {
  const silent = cases.filter((one) => {
    const [from, to] = valuesOf(one.setting);
    return !PLACES[place]!(one, planFor(one, from), planFor(one, to), to);
  });
  expect(silent.map(({ model, setting: { key } }) => `${model.id} ${key}`)).toEqual([]);
  expect(cases.length).toBeGreaterThan(40);
});

test('settings of a model stay with the plan when it is moved to another, and no other plan brings its own in', () => {
  for (const one of cases) {
    const [value] = valuesOf(one.setting);
    const own = planFor(one, value);
    const other = MODELS.find(({ id: of }) => of !== one.model.id)!;
    expect(moveToModel(own, other).plan.settings).toEqual(own.settings);
    let n = 0;
    const ids = idsOf(() => Uint8Array.from(String(++n).padStart(8, '0'), Number));
    const into = { ...plan([]), modelId: one.model.id, channels: [] };
    const { edit } = bringIn(into, own, one.model, { clear: false, from: 1, sides: {} }, ids);
    expect(edit ? run(into, edit).settings : {}).toEqual({});
  }
});
