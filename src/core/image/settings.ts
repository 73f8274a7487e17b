import type { FieldValue, Format, SettingCodec } from '../format';
import { modelById, type Model } from '../models';
import type { Plan, SettingValue } from '../plan';
import { formatOf } from '../models/formats';
import { ok, type Result } from '../result';
import { decodeImage, encodeImage, holdsSetting } from './image';
import type { SettingInfo } from './settings.schema';

type Setting = Format['settings'][number];

/** What a setting can be set to. A codec that is not named here is a type error. */
function rangeOf(codec: SettingCodec, within: Setting['within']) {
  const number = (unit: number, most: number, least = 0) => ({ kind: 'number' as const, unit, least, most });
  switch (codec.kind) {
    case 'choice':
      return { kind: 'choice' as const, values: [...codec.values] };
    case 'word':
      return { kind: 'choice' as const, values: codec.words.map(({ value }) => value) };
    case 'text':
      return { kind: 'text' as const, length: codec.bytes };
    case 'bcd':
      return number(codec.unit, (100 ** codec.bytes - 1) * codec.unit);
    case 'digits':
      return number(codec.unit, (10 ** codec.bytes - 1) * codec.unit);
    case 'flag':
      return { kind: 'choice' as const, values: [false, true] };
    case 'whole':
      return number(1, within!.to, within!.from);
  }
}

/** The settings of a model that a plan can set, in the order in which they lie. */
export const settingsOfModel = (model: Model): SettingInfo[] =>
  formatOf(model).settings.map(({ key, label, codec, within, unitOwn = false }) => ({
    ...{ key, label, unitOwn, restart: model.restartAfter.includes(key) },
    ...rangeOf(codec, within),
  }));

/** What radios cannot stand at of the settings that are others than before, in a sentence; null where they can. */
export function settingsFault(before: Plan['settings'], after: Plan['settings']): string | null {
  for (const [id, settings] of Object.entries(after)) {
    if (settings === before[id]) continue;
    const model = modelById(id);
    if (!model) return `There are settings for a model “${id}”, which Veridon does not know.`;
    for (const [key, value] of Object.entries(settings))
      if (value !== before[id]?.[key] && !holdsSetting(model, key, value))
        return `A ${model.name} has no setting “${key}” that can stand at “${String(value)}”.`;
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
export function ownFault(model: Model, values: Readonly<Record<string, FieldValue>>): string | null {
  const known = new Map(settingsOfModel(model).map((info) => [info.key, info]));
  for (const [key, value] of Object.entries(values)) {
    const info = known.get(key);
    if (!info?.unitOwn) return `A ${model.name} has no value “${key}” of its own.`;
    if (holdsSetting(model, key, value)) continue;
    const wanted =
      info.kind === 'number'
        ? `a whole number from ${info.least / info.unit} to ${info.most / info.unit}`
        : info.kind === 'text'
          ? `at most ${info.length} characters that its display has`
          : `one of ${info.values.join(', ')}`;
    return `${info.label} cannot be “${String(value)}”: it is ${wanted}.`;
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
  const own = new Set(settingsOfModel(model).flatMap(({ unitOwn, key }) => (unitOwn ? [key] : [])));
  const settings = Object.fromEntries(
    Object.entries(decoded.value.settings).filter(([key]) => !own.has(key)),
  );
  return ok(encodeImage({ ...decoded.value, settings }, to, model));
}
