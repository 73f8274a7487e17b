import type { Instead } from '../document';
import type { Settings } from './plan.schema';
import type { RecordReference, SettingValue } from './setting-value.schema';

/** References of settings to records of the plan. */

const isReference = (value: unknown): value is RecordReference =>
  typeof value === 'object' && value !== null && 'kind' in value && 'id' in value;

/** A value of a setting with its references replaced. What stays alike stays the very same. */
function valueWith<V>(value: V, of: Instead): V | null {
  if (isReference(value)) {
    const id = of(value.kind, value.id);
    return id === null ? null : id === value.id ? value : { ...value, id };
  }
  if (!Array.isArray(value)) return value;
  const parts = value.map((part: unknown) => valueWith(part, of));
  return parts.every((part, at) => part === value[at]) ? value : (parts as V);
}

/** The settings with their references replaced; a value of which nothing is left goes. The very same where all stay. */
export function withSettingReferences(settings: Settings, of: Instead): Settings {
  let changed = false;
  const models = Object.entries(settings).map(([model, values]) => {
    const left = Object.entries(values).flatMap(([key, value]): [string, SettingValue][] => {
      const there = valueWith(value, of);
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
