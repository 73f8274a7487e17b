import type { Codec } from '../format';
import { modelById, type Model } from '../models';
import type { Plan } from '../plan';
import { formatOf } from '../models/formats';
import { ok, type Result } from '../result';
import { decodeImage, encodeImage, holdsSetting } from './image';
import type { SettingInfo } from './settings.schema';

function rangeOf(codec: Codec) {
  switch (codec.kind) {
    case 'choice':
      return { kind: 'choice' as const, values: [...codec.values] };
    case 'word':
      return { kind: 'choice' as const, values: codec.words.map(({ value }) => value) };
    case 'text':
      return { kind: 'text' as const, length: codec.bytes };
    case 'bcd':
      return { kind: 'number' as const, unit: codec.unit, most: (100 ** codec.bytes - 1) * codec.unit };
    case 'digits':
      return { kind: 'number' as const, unit: codec.unit, most: (10 ** codec.bytes - 1) * codec.unit };
    case 'flag':
      return { kind: 'choice' as const, values: [false, true] };
    default:
      return undefined;
  }
}

/** The settings of a model that a plan can set, in the order in which they lie. */
export const settingsOfModel = (model: Model): SettingInfo[] =>
  formatOf(model).settings.flatMap(({ key, label, codec }) => {
    const range = rangeOf(codec);
    return range ? [{ key, label, restart: model.restartAfter.includes(key), ...range }] : [];
  });

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

/**
 * An image of one unit for another of its model: the channels, sets and settings of `from` on what `to` holds. What is a unit's own stays
 * as it is in `to`: all that the format does not name, and settings of text, such as a greeting or an own call sign. Fails where
 * `from` cannot be read.
 */
export function imageForAnother(from: Uint8Array, to: Uint8Array, model: Model): Result<Uint8Array> {
  const decoded = decodeImage(from, model);
  if (!decoded.ok) return decoded;
  const own = new Set(settingsOfModel(model).flatMap(({ kind, key }) => (kind === 'text' ? [key] : [])));
  const settings = Object.fromEntries(
    Object.entries(decoded.value.settings).filter(([key]) => !own.has(key)),
  );
  return ok(encodeImage({ ...decoded.value, settings }, to, model));
}
