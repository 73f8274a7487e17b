import type { Model } from '../models';
import { settingsOf } from '../models/settings';
import {
  abbreviationsOf,
  KINDS,
  recordsOf,
  type AnyRecord,
  type HeldValue,
  type Kind,
  type Plan,
  type RecordReference,
  type SettingValue,
} from '../plan';
import { withNumbers, withRecords } from '../settings';
import { numbersIn } from './digital';
import type { FitBeside } from './fitted';
import { obstacles } from './obstacle';

/** How many records of a kind a model numbers by their place in the plan. */
const counts = (model: Model): Partial<Record<Kind, number | undefined>> => ({
  zone: model.zones?.count,
  skipSet: model.skipSets?.count,
  setUp: model.setUps?.count,
  receiveList: model.digital?.receiveLists.count,
  scanList: model.scanLists?.count,
});

/** The radio's number of a record of the plan; null where the radio does not hold it. A channel's is its slot. */
export function numberOfRecord(plan: Plan, model: Model, { kind, id }: RecordReference): number | null {
  if (kind === 'channel') {
    const channel = plan.channels.find((one) => one.id === id);
    return channel && obstacles(channel, model).length === 0 ? channel.slot : null;
  }
  if (kind === 'talkgroup')
    return new Map<string, number>(numbersIn(plan, model, abbreviationsOf(plan)).talkgroup).get(id) ?? null;
  const place = (recordsOf(plan, kind) as readonly AnyRecord[]).findIndex((one) => one.id === id);
  return place >= 0 && place < (counts(model)[kind] ?? 0) ? place + 1 : null;
}

/** The record of the plan that a radio knows by a number, after this plan was written to it; null where there is none. */
export function recordOfNumber(
  plan: Plan,
  model: Model,
  kind: Kind,
  number: number,
  list: number,
): RecordReference | null {
  const reference = (id: string | undefined) => (id === undefined ? null : { kind, id });
  if (kind === 'channel')
    return reference(plan.channels.find((one) => one.list === list && one.slot === number)?.id);
  if (kind === 'talkgroup')
    return reference(
      [...numbersIn(plan, model, abbreviationsOf(plan)).talkgroup].find(([, own]) => own === number)?.[0],
    );
  if (number < 1 || number > (counts(model)[kind] ?? 0)) return null;
  return reference((recordsOf(plan, kind) as readonly AnyRecord[])[number - 1]?.id);
}

/** The settings of a plan as a radio gets them. One that refers to a record that the radio does not hold is not written, and said. */
export function settingsWithNumbers(
  plan: Plan,
  model: Model,
  settings: Readonly<Record<string, SettingValue>>,
): { settings: Record<string, HeldValue>; besides: FitBeside[] } {
  const besides: FitBeside[] = [];
  const numbered = Object.entries(settings).flatMap(([key, value]): [string, HeldValue][] => {
    let lost: RecordReference | undefined;
    const held = withNumbers(value, (reference) => {
      const number = numberOfRecord(plan, model, reference);
      if (number === null) lost = reference;
      return number;
    });
    if (lost === undefined && held !== null) return [[key, held]];
    besides.push({
      ...{ kind: 'setting', id: key, text: 'A setting stays as the radio has it' },
      because: `The radio does not hold the ${KINDS[lost!.kind].words.one} that it names`,
    });
    return [];
  });
  return { settings: Object.fromEntries(numbered), besides };
}

/** A value that was read from a radio which this plan was written to, as the plan has it; null where it has no such record. */
export function settingFromRadio(
  plan: Plan,
  model: Model,
  key: string,
  held: HeldValue | null,
): SettingValue | null {
  const setting = settingsOf(model).find((one) => one.key === key);
  return setting
    ? withRecords(setting.value, held, (kind, number, list) =>
        recordOfNumber(plan, model, kind, number, list),
      )
    : null;
}
