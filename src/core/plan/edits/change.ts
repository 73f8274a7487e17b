import equal from 'fast-deep-equal';
import { fail, ok, type Result } from '../../result';
import { carryTransmit, formatFrequency, isFrequency } from '../../radio';
import { KINDS, recordsOf, withRecords, type OwnKind } from '../kinds';
import type { AnyRecord } from '../kinds.schema';
import type { LabelParts } from '../label.schema';
import type { Plan } from '../plan.schema';
import { danglingFault } from '../references';
import { withoutSolvedTexts } from '../unclear';
import { defineEdit } from './define';
import { placesOf, withPlacesOf } from '../places';
import type { ChannelChange, ChangeEdit } from './change.schema';

/** Sets fields of records. On channels it knows radio: transmit follows receive by the shift that it had. */
export const change = defineEdit<ChangeEdit>({
  apply: (plan, edit) =>
    edit.kind === undefined || edit.kind === 'channel'
      ? changeChannels(plan, edit.changes)
      : changeRecords(plan, edit.kind, edit.changes),
  label: (edit, plan) =>
    edit.kind === undefined || edit.kind === 'channel'
      ? channelLabel(edit.changes, plan)
      : recordLabel(edit.kind, edit.changes, plan),
});

export const MISSING = 'is not in the plan any more';

function changeChannels(plan: Plan, changes: readonly ChannelChange[]): Result<Plan> {
  const places = placesOf(plan.channels);
  const channels = plan.channels.slice();
  for (const { id, set } of changes) {
    const place = places.get(id);
    const before = place === undefined ? undefined : channels[place];
    if (place === undefined || !before) return fail(`Channel ${id} ${MISSING}.`);
    const next = { ...before, ...set };
    if (set.tx !== undefined) next.txFixed = set.tx !== null && set.tx !== next.rx && (set.txFixed ?? false);
    else if (set.rx !== undefined)
      Object.assign(next, carryTransmit(before, before.rx, set.rx, plan.owner.region));
    if (next.tx !== null && !isFrequency(next.tx))
      return fail(
        `“${before.name}” would send on ${formatFrequency(next.tx)}, which is no usable frequency.`,
      );
    channels[place] = withoutSolvedTexts(next, set);
  }
  return ok({ ...plan, channels: withPlacesOf(plan.channels, channels) });
}

function changeRecords(
  plan: Plan,
  kind: OwnKind,
  changes: readonly { id: string; set: object }[],
): Result<Plan> {
  const { words } = KINDS[kind];
  const records = new Map<string, AnyRecord>(recordsOf(plan, kind).map((record) => [record.id, record]));
  for (const { id, set } of changes) {
    const before = records.get(id);
    if (!before) return fail(`The ${words.one} ${id} ${MISSING}.`);
    const next: AnyRecord = { ...before, ...set };
    records.set(id, 'rx' in next ? withoutSolvedTexts(next, set) : next);
  }
  const next = withRecords(plan, kind, [...records.values()]);
  const lost = danglingFault(next, { [kind]: changes.map(({ id }) => records.get(id)!) });
  return lost === null ? ok(next) : fail(lost);
}

const fieldsOf = (sets: readonly object[]) => [...new Set(sets.flatMap((set) => Object.keys(set)))];

function recordLabel(kind: OwnKind, changes: readonly { id: string; set: object }[], plan: Plan): LabelParts {
  const only =
    changes.length === 1 ? recordsOf(plan, kind).find(({ id }) => id === changes[0]!.id) : undefined;
  const fields = fieldsOf(changes.map(({ set }) => set));
  return { of: 'change records', kind, n: changes.length, ...(only && { name: only.name }), fields };
}

function channelLabel(changes: readonly ChannelChange[], plan: Plan): LabelParts {
  const sets = changes.map((one) => one.set);
  const first = sets[0]!;
  const fields = fieldsOf(sets).filter((key) => key !== 'txFixed');
  const only =
    changes.length === 1 ? plan.channels[placesOf(plan.channels).get(changes[0]!.id) ?? -1] : undefined;
  const same = fields.length === 1 && sets.every((set) => equal(set, first));
  return {
    ...{ of: 'change channels', n: changes.length, fields },
    ...(only && { name: only.name || formatFrequency(only.rx) }),
    ...(same && { set: { ...first } }),
  };
}
