import { canHold, type FieldValue } from '../format';
import { modelById, type Model } from '../models';
import { formatOf } from '../models/formats';
import { settingsOf } from '../models/settings';
import type { Plan, SettingValue } from '../plan';
import { ok, type Result } from '../result';
import {
  heldKind,
  isValue,
  sameValue,
  valueFault,
  withNumbers,
  type AnyValue,
  type ValueKind,
} from '../settings';
import { contextOf, decodeImage, encodeImage, holdsSetting } from './image';
import type { SettingInfo } from './settings.schema';

/** The settings of a model in the order in which they are shown. */
export const settingsOfModel = (model: Model): SettingInfo[] =>
  settingsOf(model).map((setting) => {
    const needs = model.options?.find(({ settings = [] }) => settings.includes(setting.key))?.name;
    const since = formatOf(model).settings.find(({ key }) => key === setting.key)?.since;
    return { ...setting, ...(needs !== undefined && { needs }), ...(since !== undefined && { since }) };
  });

/** Values at both ends of what a setting may be, and all of a choice: what its bytes must be able to hold. */
function samples(kind: ValueKind): AnyValue[] {
  switch (kind.kind) {
    case 'choice':
      return [...kind.values];
    case 'switch':
      return [false, true];
    case 'number':
      return [kind.least, kind.most, kind.least + kind.step];
    case 'text':
      return ['', 'A'.repeat(kind.length)].filter((text) => isValue(kind, text, kind.characters ?? 'A'));
    case 'curve':
      return [kind.least, kind.most].map((end) => Array.from({ length: kind.points }, () => end));
    case 'coordinate':
      return [
        { lat: -90, lon: -180 },
        { lat: 52.134_567, lon: 179.999_999 },
      ];
    case 'list':
      return samples(kind.of).map((value) =>
        value === '' ? [] : (Array.from({ length: kind.count }, () => value) as AnyValue),
      );
    case 'sides':
      return samples(kind.of).map((value) => kind.sides.map(() => value) as AnyValue);
    case 'reference':
      return [1];
  }
}

/**
 * What the settings of a model and its format do not agree on, a sentence each: settings without bytes, bytes without a setting, and values
 * that one has and the other cannot hold. Empty for every model that may be used.
 */
export function settingDisagreements(model: Model): string[] {
  const placed = new Map(formatOf(model).settings.map((one) => [one.key, one]));
  const known = new Set(settingsOf(model).map(({ key }) => key));
  const context = contextOf(model);
  const faults = settingsOf(model).flatMap(({ key, value, default: factory, byRegion = {} }) => {
    const place = placed.get(key);
    if (!place) return [`${key} has no place in the memory.`];
    const held = heldKind(value);
    const tooWide = samples(held).filter((one) => !canHold(place.codec, one as FieldValue, context));
    const usual = [factory, ...Object.values(byRegion)].filter((one) => one !== null);
    const odd = usual.filter((one) => !isValue(value, one, context.characters));
    return [
      ...tooWide.map((one) => `${key} may be ${JSON.stringify(one)}, which its bytes cannot hold.`),
      ...odd.map((one) => `${key} comes from the factory as ${JSON.stringify(one)}, which it cannot be.`),
      ...unusedValues(held, place.codec).map((one) => `The bytes of ${key} can be ${one}, which it cannot.`),
    ];
  });
  const unknown = [...placed.keys()].filter((key) => !known.has(key));
  return [...faults, ...unknown.map((key) => `The memory has a place for ${key}, which is no setting.`)];
}

/** Values that the bytes of a choice, a switch or a text have, and the setting has not. */
function unusedValues(kind: ValueKind, codec: ReturnType<typeof formatOf>['settings'][number]['codec']) {
  const [of, inner] =
    codec.kind === 'series' && 'of' in kind ? [kind.of, codec.of] : ([kind, codec] as const);
  const all =
    inner.kind === 'choice'
      ? inner.values
      : inner.kind === 'word'
        ? inner.words.map(({ value }) => value)
        : inner.kind === 'text' && of.kind === 'text' && inner.bytes > of.length
          ? [`${inner.bytes} characters long`]
          : [];
  return all.filter((value) => !isValue(of, value, '')).map(String);
}

/** What is wrong with settings that are others than before, in a sentence; null where radios can have them. */
export function settingsFault(before: Plan['settings'], after: Plan['settings']): string | null {
  for (const [id, values] of Object.entries(after)) {
    if (values === before[id]) continue;
    const model = modelById(id);
    if (!model) return `There are settings for a model “${id}”, which Veridon does not know.`;
    const known = new Map(settingsOf(model).map((setting) => [setting.key, setting]));
    for (const [key, value] of Object.entries(values)) {
      if (sameValue(value, before[id]?.[key])) continue;
      const setting = known.get(key);
      if (!setting) return `A ${model.name} has no setting “${key}”.`;
      const fault = valueFault(setting, value, model.names.characters);
      if (fault !== null) return fault;
      if (!holdsSetting(model, key, withNumbers(value, () => 1) as FieldValue))
        return `${setting.name} cannot be “${JSON.stringify(value)}” on a ${model.name}.`;
    }
  }
  return null;
}

/** Values of one unit, by the key of the setting. */
export type UnitValues = Readonly<Record<string, SettingValue>>;

/** A plan as one unit gets it: the values of the unit replace what the plan sets. */
export const withUnitValues = (plan: Plan, model: Model, values: UnitValues): Plan =>
  Object.keys(values).length === 0
    ? plan
    : { ...plan, settings: { ...plan.settings, [model.id]: { ...plan.settings[model.id], ...values } } };

/** Why values cannot be those of one unit of a model, in a sentence; null where they can. */
export function ownFault(model: Model, values: Readonly<Record<string, SettingValue>>): string | null {
  const known = new Map(settingsOf(model).map((setting) => [setting.key, setting]));
  for (const [key, value] of Object.entries(values)) {
    const setting = known.get(key);
    if (setting?.scope !== 'unit') return `A ${model.name} has no value “${key}” of its own.`;
    const fault = valueFault(setting, value, model.names.characters);
    if (fault !== null) return fault;
  }
  return null;
}

/**
 * An image of one unit for another of its model: the channels, sets and settings of `from` on what `to` holds. What is a unit's own stays
 * as it is in `to`: all that the format does not name, and the settings that it says are a unit's own. Fails where `from` cannot be read.
 */
export function imageForAnother(from: Uint8Array, to: Uint8Array, model: Model): Result<Uint8Array> {
  const decoded = decodeImage(from, model);
  if (!decoded.ok) return decoded;
  const own = new Set(settingsOf(model).flatMap(({ scope, key }) => (scope === 'unit' ? [key] : [])));
  const settings = Object.fromEntries(
    Object.entries(decoded.value.settings).filter(([key]) => !own.has(key)),
  );
  return ok(encodeImage({ ...decoded.value, settings }, to, model));
}
