import equal from 'fast-deep-equal';
import { z } from 'zod';
import { fail, ok, type Result } from '../result';
import { carryTransmit, formatAccess, formatFrequency, formatPower, isFrequency } from '../radio';
import {
  CHANNEL_LIMIT,
  channelFieldsSchema,
  channelSchema,
  newChannelSchema,
  SLOT_LIMIT,
  type Channel,
  type ChannelFields,
} from './channel';
import { channelIdSchema, type ChannelId } from './ids';
import { abbreviationsSchema } from './names';
import { detailsSchema, orderedChannels, ownerSchema, type Plan } from './plan';
import { PLACEMENTS, previewPlacing } from './slots';

const ids = z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT);
const slot = z.int().min(0).max(SLOT_LIMIT);

/** Fields to set on one channel; what is not named stays. */
export const channelSetSchema = channelFieldsSchema
  .partial()
  .strict()
  .refine((set) => set.txFixed === undefined || set.tx !== undefined, 'has txFixed without tx');
export type ChannelSet = z.infer<typeof channelSetSchema>;

const describedSchema = detailsSchema.extend({ abbreviations: abbreviationsSchema.nullable() });

/**
 * Every change of a plan, as a value. `applyEdit` runs it, `editLabel` says it in words, `inverseOf` undoes it.
 * `restore` is the form that inverses take: channels as they were, ids to take away, details as they were.
 */
export const editSchema = z.discriminatedUnion('name', [
  z.object({
    name: z.literal('change'),
    changes: z
      .array(z.object({ id: channelIdSchema, set: channelSetSchema }))
      .min(1)
      .max(CHANNEL_LIMIT),
  }),
  z.object({
    name: z.literal('place'),
    channels: z.array(newChannelSchema).min(1).max(CHANNEL_LIMIT),
    placement: z.enum(PLACEMENTS),
    at: slot,
    range: z.object({
      first: slot,
      count: z
        .int()
        .min(1)
        .max(SLOT_LIMIT + 1),
    }),
    /** The slots that the preview showed; the edit is refused where they are no longer what it would give. */
    expect: z.array(slot).max(CHANNEL_LIMIT).optional(),
  }),
  z.object({ name: z.literal('remove'), ids }),
  z.object({
    name: z.literal('arrange'),
    how: z.enum(['move', 'swap', 'close gaps', 'sort', 'renumber']),
    moves: z
      .array(z.object({ id: channelIdSchema, from: slot, to: slot }))
      .min(1)
      .max(CHANNEL_LIMIT),
  }),
  z.object({
    name: z.literal('describe'),
    set: describedSchema
      .extend({ owner: ownerSchema.partial() })
      .partial()
      .refine((set) => Object.keys(set).length > 0, 'sets nothing'),
  }),
  z.object({
    name: z.literal('restore'),
    put: z.array(channelSchema).max(CHANNEL_LIMIT),
    remove: z.array(channelIdSchema).max(CHANNEL_LIMIT),
    // the oldest logs know no abbreviations
    details: describedSchema.partial({ abbreviations: true }).optional(),
  }),
]);
export type Edit = z.infer<typeof editSchema>;

/**
 * Runs an edit. Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure.
 *
 * @example applyEdit(plan, { name: 'change', changes: [{ id, set: { tx: null } }] })
 */
export function applyEdit(plan: Plan, edit: Edit): Result<Plan> {
  switch (edit.name) {
    case 'change':
      return change(plan, edit.changes);
    case 'place':
      return place(plan, edit);
    case 'remove':
      return remove(plan, edit.ids);
    case 'arrange':
      return arrange(plan, edit.moves);
    case 'describe': {
      const { owner, ...rest } = edit.set;
      return ok({ ...plan, ...rest, owner: { ...plan.owner, ...owner } });
    }
    case 'restore': {
      const gone = new Set<string>([...edit.remove, ...edit.put.map((channel) => channel.id)]);
      return withChannels({ ...plan, ...edit.details }, [
        ...plan.channels.filter((channel) => !gone.has(channel.id)),
        ...edit.put,
      ]);
    }
  }
}

function withChannels(plan: Plan, channels: readonly Channel[]): Result<Plan> {
  const ordered = orderedChannels(channels);
  return typeof ordered === 'string' ? fail(ordered) : ok({ ...plan, channels: ordered });
}

const MISSING = 'is not in the plan any more';

function change(plan: Plan, changes: readonly { id: ChannelId; set: ChannelSet }[]): Result<Plan> {
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  for (const { id, set } of changes) {
    const before = byId.get(id);
    if (!before) return fail(`Channel ${id} ${MISSING}.`);
    const next = { ...before, ...set };
    if (set.tx !== undefined) next.txFixed = set.tx !== null && set.tx !== next.rx && (set.txFixed ?? false);
    else if (set.rx !== undefined)
      Object.assign(next, carryTransmit(before, before.rx, set.rx, plan.owner.region));
    if (next.tx !== null && !isFrequency(next.tx))
      return fail(
        `“${before.name}” would send on ${formatFrequency(next.tx)}, which is no usable frequency.`,
      );
    byId.set(id, next);
  }
  return ok({ ...plan, channels: plan.channels.map((channel) => byId.get(channel.id)!) });
}

function place(plan: Plan, edit: Extract<Edit, { name: 'place' }>): Result<Plan> {
  const preview = previewPlacing(plan.channels, edit.channels.length, edit.placement, edit.at, edit.range);
  if (preview.leftOver.length > 0) {
    const words =
      preview.leftOver.length === 1 ? '1 channel finds' : `${preview.leftOver.length} channels find`;
    return fail(`${words} no slot. Choose fewer, or another way to place them.`);
  }
  const slots = preview.assigned.map(({ slot: assigned }) => assigned);
  if (edit.expect && edit.expect.join() !== slots.join())
    return fail('The slots have changed since the preview. Look at the new preview and place again.');
  const gone = new Set<string>(preview.overwritten);
  const moved = new Map(preview.pushed.map((move) => [move.id, move.to]));
  return withChannels(plan, [
    ...plan.channels
      .filter(({ id }) => !gone.has(id))
      .map((c) => (moved.has(c.id) ? { ...c, slot: moved.get(c.id)! } : c)),
    ...edit.channels.map((channel, index) => ({ ...channel, slot: slots[index]! })),
  ]);
}

function remove(plan: Plan, gone: readonly ChannelId[]): Result<Plan> {
  const held = new Set(plan.channels.map((channel) => channel.id));
  const missing = gone.find((id) => !held.has(id));
  if (missing) return fail(`Channel ${missing} ${MISSING}.`);
  const going = new Set(gone);
  return ok({ ...plan, channels: plan.channels.filter((channel) => !going.has(channel.id)) });
}

function arrange(plan: Plan, moves: readonly { id: ChannelId; from: number; to: number }[]): Result<Plan> {
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  const to = new Map<string, number>();
  for (const move of moves) {
    const channel = byId.get(move.id);
    if (!channel) return fail(`Channel ${move.id} ${MISSING}.`);
    if (channel.slot !== move.from)
      return fail(`“${channel.name}” is in slot ${channel.slot} now, not ${move.from}.`);
    to.set(move.id, move.to);
  }
  return withChannels(
    plan,
    plan.channels.map((channel) =>
      to.has(channel.id) ? { ...channel, slot: to.get(channel.id)! } : channel,
    ),
  );
}

const DETAILS = ['name', 'modelId', 'owner', 'abbreviations'] as const;

/** The edit that leads from `after` back to `before`: found by comparing the two, so it fits every edit. */
export function inverseOf(before: Plan, after: Plan): Edit {
  const afterById = new Map(after.channels.map((channel) => [channel.id, channel]));
  const beforeIds = new Set(before.channels.map((channel) => channel.id));
  const put = before.channels.filter((channel) => afterById.get(channel.id) !== channel);
  const gone = after.channels.filter((channel) => !beforeIds.has(channel.id)).map((channel) => channel.id);
  const changed = DETAILS.some((key) => before[key] !== after[key]);
  if (!changed) return { name: 'restore', put, remove: gone };
  const { name, modelId, owner, abbreviations } = before;
  return { name: 'restore', put, remove: gone, details: { name, modelId, owner, abbreviations } };
}

/**
 * Runs an edit that was made on `base` again on `newest`. Refused where it fails there, or where it sets
 * something that has been changed since: nobody's work is overwritten unseen.
 */
export function rebaseEdit(edit: Edit, base: Plan, newest: Plan): Result<Plan> {
  const wanted = applyEdit(base, edit);
  if (!wanted.ok) return wanted;
  const result = applyEdit(newest, edit);
  if (!result.ok) return result;
  const baseById = new Map(base.channels.map((channel) => [channel.id, channel]));
  const newestById = new Map(newest.channels.map((channel) => [channel.id, channel]));
  const wantedById = new Map(wanted.value.channels.map((channel) => [channel.id, channel]));
  for (const [id, before] of baseById) {
    const asked = wantedById.get(id);
    const now = newestById.get(id);
    if (asked === before || !now || now === before) continue;
    // Not the keys that are there: a field that may be missing can have been added on both sides.
    for (const key of Object.keys(FIELD_NAMES) as (keyof Channel)[]) {
      const touched = asked === undefined || !equal(asked[key], before[key]);
      if (touched && !equal(now[key], before[key]))
        return fail(
          `“${before.name}” was changed meanwhile (${FIELD_NAMES[key]}). Look at it and try again.`,
        );
    }
  }
  for (const key of DETAILS) {
    if (!equal(wanted.value[key], base[key]) && !equal(newest[key], base[key]))
      return fail('The details of this plan were changed meanwhile. Look at them and try again.');
  }
  return result;
}

/** What the fields are called on screen and in messages. */
export const FIELD_NAMES: Record<keyof Channel, string> = {
  id: 'id',
  slot: 'slot',
  name: 'name',
  fitted: 'name on the radio',
  rx: 'receive',
  tx: 'transmit',
  txFixed: 'transmit',
  access: 'access',
  mode: 'mode',
  power: 'power',
  scan: 'scan',
  alwaysOn: 'always on',
  satellite: 'working a satellite',
  note: 'note',
  source: 'source',
};

const count = (n: number) => (n === 1 ? '1 channel' : `${n} channels`);

/** An edit in plain words for the history and the undo button; `plan` is the one it is run on. */
export function editLabel(edit: Edit, plan: Plan): string {
  switch (edit.name) {
    case 'change':
      return changeLabel(edit.changes, plan);
    case 'place':
      return edit.channels.length === 1
        ? `Place “${edit.channels[0]!.name}”`
        : `Place ${count(edit.channels.length)}`;
    case 'remove': {
      const only = edit.ids.length === 1 && plan.channels.find((channel) => channel.id === edit.ids[0]);
      return only ? `Remove “${only.name}”` : `Remove ${count(edit.ids.length)}`;
    }
    case 'arrange':
      return (
        { move: 'Move', swap: 'Swap', 'close gaps': 'Close gaps:', sort: 'Sort', renumber: 'Renumber' }[
          edit.how
        ] + ` ${count(edit.moves.length)}`
      );
    case 'describe':
      if (edit.set.name !== undefined) return `Rename the plan to “${edit.set.name}”`;
      return edit.set.abbreviations === undefined ? 'Change the plan’s details' : 'Change the abbreviations';
    case 'restore':
      return `Restore ${count(edit.put.length + edit.remove.length)}`;
  }
}

function changeLabel(changes: readonly { id: ChannelId; set: ChannelSet }[], plan: Plan): string {
  const sets = changes.map((change) => change.set);
  const first = sets[0]!;
  const keys = [...new Set(sets.flatMap((set) => Object.keys(set)))].filter(
    (key) => key !== 'txFixed',
  ) as (keyof ChannelFields)[];
  const only =
    changes.length === 1 ? plan.channels.find((channel) => channel.id === changes[0]!.id) : undefined;
  const target = only ? `“${only.name || formatFrequency(only.rx)}”` : count(changes.length);
  if (keys.length !== 1) return `Change ${target}`;
  const key = keys[0]!;
  if (!sets.every((set) => equal(set, first))) return `Set ${FIELD_NAMES[key]} of ${target}`;
  if (key === 'tx' && first.tx === null) return `Set ${target} to listen only`;
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
