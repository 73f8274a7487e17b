import equal from 'fast-deep-equal';
import { fail, ok, type Result } from '../../result';
import { carryTransmit, formatAccess, formatFrequency, formatPower, isFrequency } from '../../radio';
import { FIELD_NAMES } from '../channel';
import type { ChannelFields } from '../channel.schema';
import { KINDS, recordsOf, withRecords, type OwnKind } from '../kinds';
import type { AnyRecord } from '../kinds.schema';
import type { Plan } from '../plan.schema';
import { danglingFault } from '../references';
import { countOf } from '../record';
import { withoutSolvedTexts } from '../unclear';
import { defineEdit } from './define';
import { placesOf, withPlacesOf } from '../places';
import type { ChannelSet, ChannelChange, ChangeEdit } from './change.schema';

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

function recordLabel(kind: OwnKind, changes: readonly { id: string; set: object }[], plan: Plan): string {
  const { words } = KINDS[kind];
  const only =
    changes.length === 1 ? recordsOf(plan, kind).find(({ id }) => id === changes[0]!.id) : undefined;
  const fields = [...new Set(changes.flatMap(({ set }) => Object.keys(set)))];
  const what = fields.length === 1 ? `${(words.fields as Record<string, string>)[fields[0]!]} of ` : '';
  return `Change ${what}${only ? `the ${words.one} “${only.name}”` : countOf(changes.length, KINDS[kind])}`;
}

function channelLabel(changes: readonly ChannelChange[], plan: Plan): string {
  const sets = changes.map((one) => one.set);
  const first = sets[0]!;
  const keys = [...new Set(sets.flatMap((set) => Object.keys(set)))].filter(
    (key) => key !== 'txFixed',
  ) as (keyof ChannelFields)[];
  const only =
    changes.length === 1 ? plan.channels[placesOf(plan.channels).get(changes[0]!.id) ?? -1] : undefined;
  const target = only ? `“${only.name || formatFrequency(only.rx)}”` : countOf(changes.length, KINDS.channel);
  if (keys.length !== 1) return `Change ${target}`;
  const key = keys[0]!;
  if (!sets.every((set) => equal(set, first))) return `Set ${FIELD_NAMES[key]} of ${target}`;
  if (key === 'tx' && first.tx === null) return `Set ${target} to listen only`;
  if (key === 'unclear') return `Mark what was typed into ${target}`;
  if (key === 'scan') return `${first.scan ? 'Scan' : 'Leave out of the scan'}: ${target}`;
  if (key === 'satellite') return `Mark ${target} as ${first.satellite ? '' : 'not '}working a satellite`;
  if (key === 'name') return `Rename ${target} to “${first.name}”`;
  const value = valueLabel(key, first);
  return value === undefined
    ? `Change ${FIELD_NAMES[key]} of ${target}`
    : `Set ${FIELD_NAMES[key]} of ${target} to ${value}`;
}

function valueLabel(key: keyof ChannelFields, set: ChannelSet): string | undefined {
  if (key === 'rx') return formatFrequency(set.rx!);
  if (key === 'tx') return formatFrequency(set.tx!);
  if (key === 'access') return formatAccess(set.access!) || 'open';
  if (key === 'power') return formatPower(set.power!);
  if (key === 'mode') return set.mode;
  return undefined;
}
