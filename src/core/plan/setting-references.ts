import type { IsThere } from '../document';
import type { Settings } from './plan.schema';
import type { RecordReference, SettingValue } from './setting-value.schema';

/** References of settings to records of the plan. */

const isReference = (value: unknown): value is RecordReference =>
  typeof value === 'object' && value !== null && 'kind' in value && 'id' in value;

/** A value of a setting without references to what is not there: null in their place. What loses nothing stays the very same. */
function valueThere<V>(value: V, isThere: IsThere): V | null {
  if (isReference(value)) return isThere(value.kind, value.id) ? value : null;
  if (!Array.isArray(value)) return value;
  const parts = value.map((part: unknown) => valueThere(part, isThere));
  return parts.every((part, at) => part === value[at]) ? value : (parts as V);
}

/** The settings without references to records that are not there; the very same where all lead somewhere. */
export function settingsThere(settings: Settings, isThere: IsThere): Settings {
  let changed = false;
  const models = Object.entries(settings).map(([model, values]) => {
    const left = Object.entries(values).flatMap(([key, value]): [string, SettingValue][] => {
      const there = valueThere(value, isThere);
      changed ||= there !== value;
      return there === null ? [] : [[key, there]];
    });
    return [model, left] as const;
  });
  if (!changed) return settings;
  return Object.fromEntries(
    models.flatMap(([model, left]) => (left.length > 0 ? [[model, Object.fromEntries(left)]] : [])),
  );
}
