import equal from 'fast-deep-equal';
import type { SettingChanges, Settings } from './plan.schema';
import type { SettingValue } from './setting-value.schema';

/** Changes of settings, one by one: what is not named stays. Names of models and keys come from outside: no object is written by them. */

const valuesIn = <V>(of: Readonly<Record<string, Readonly<Record<string, V>>>>, model: string) =>
  new Map<string, V>(Object.hasOwn(of, model) ? Object.entries(of[model]!) : []);

const modelsIn = (...all: object[]) => new Set(all.flatMap((one) => Object.keys(one)));

/** What leads from some settings to others, by model and key; undefined where they are the same. */
export function settingChanges(before: Settings, after: Settings): SettingChanges | undefined {
  if (before === after) return undefined;
  const changes = [...modelsIn(before, after)].flatMap((model) => {
    const [was, is] = [valuesIn(before, model), valuesIn(after, model)];
    const keys = [...new Set([...was.keys(), ...is.keys()])].filter(
      (key) => !equal(was.get(key), is.get(key)),
    );
    const values = keys.map((key): [string, SettingValue | null] => [key, is.get(key) ?? null]);
    return values.length > 0 ? [[model, Object.fromEntries(values)] as const] : [];
  });
  return changes.length > 0 ? Object.fromEntries(changes) : undefined;
}

/** The settings with changes laid over them; a model without any is not named. */
export function withSettings(settings: Settings, changes: SettingChanges): Settings {
  const next = [...modelsIn(settings, changes)].flatMap((model) => {
    if (!Object.hasOwn(changes, model)) return [[model, settings[model]!] as const];
    const values = valuesIn(settings, model);
    for (const [key, value] of valuesIn(changes, model))
      if (value === null) values.delete(key);
      else values.set(key, value);
    return values.size > 0 ? [[model, Object.fromEntries(values)] as const] : [];
  });
  return Object.fromEntries(next);
}

/** True where two changes name one setting. */
export const settingsClash = (one: SettingChanges, other: SettingChanges): boolean =>
  Object.keys(one).some((model) => {
    const theirs = valuesIn(other, model);
    return [...valuesIn(one, model).keys()].some((key) => theirs.has(key));
  });
