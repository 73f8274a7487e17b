import equal from 'fast-deep-equal';
import { changeRecords, missingIn } from '../../document/edits';
import { fieldsOf, generalLabel } from '../../document/label';
import { fail, ok, type Result } from '../../result';
import { carryTransmit, formatFrequency, isFrequency } from '../../radio';
import type { OwnKind } from '../kinds';
import type { NewChannel } from '../channel.schema';
import type { LabelParts } from '../label.schema';
import type { Plan } from '../plan.schema';
import { PLAN_STRUCTURE } from '../structure';
import { withoutSolvedTexts } from '../unclear';
import { defineEdit } from './define';
import { placesOf, withPlacesOf } from '../places';
import type { ChannelChange, ChangeEdit } from './change.schema';

/** Sets fields of records. On channels it knows radio: transmit follows receive by the shift that it had. */
export const change = defineEdit<ChangeEdit>({
  apply: (plan, edit) =>
    edit.kind === undefined || edit.kind === 'channel'
      ? changeChannels(plan, edit.changes)
      : changeRecords(PLAN_STRUCTURE, plan, edit.kind, edit.changes, (record, set) =>
          'rx' in record ? withoutSolvedTexts(record as NewChannel, set) : record,
        ),
  label: (edit, plan) =>
    edit.kind === undefined || edit.kind === 'channel'
      ? channelLabel(edit.changes, plan)
      : recordLabel(edit.kind, edit.changes, plan),
});

export const MISSING = missingIn(PLAN_STRUCTURE);

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

const recordLabel = (kind: OwnKind, changes: { id: string; set: object }[], plan: Plan) =>
  generalLabel(PLAN_STRUCTURE, { name: 'change', kind, changes }, plan) as LabelParts;

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
