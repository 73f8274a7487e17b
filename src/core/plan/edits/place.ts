import { fail, ok, type Result } from '../../result';
import type { Channel, NewChannel } from '../channel.schema';
import { orderedChannels } from '../plan';
import type { Plan } from '../plan.schema';
import { withoutDangling, withReferencesThere } from '../references';
import { previewPlacing, type SlotRange } from '../slots';
import { defineEdit } from './define';
import type { PlaceEdit } from './place.schema';

/** Channels of a plan with new ones in slots of their own, one each. Fails where one is taken, twice there, or none of the radio's. */
function intoSlots(
  plan: Plan,
  fresh: readonly NewChannel[],
  slots: readonly number[],
  { first, count }: SlotRange,
  list: number,
): Result<Channel[]> {
  if (slots.length !== fresh.length)
    return fail(`There are ${fresh.length} channels and ${slots.length} slots for them.`);
  const beyond = slots.find((slot) => slot < first || slot >= first + count);
  if (beyond !== undefined)
    return fail(`There is no slot ${beyond}: they run from ${first} to ${first + count - 1}.`);
  const held = new Map(
    plan.channels.filter((channel) => channel.list === list).map((channel) => [channel.slot, channel]),
  );
  const taken = slots.map((slot) => held.get(slot)).find((channel) => channel !== undefined);
  if (taken)
    return fail(`Slot ${taken.slot} is taken by “${taken.name}” meanwhile. Look at the slots again.`);
  const channels = orderedChannels([
    ...plan.channels,
    ...fresh.map((channel, index) => ({ ...channel, list, slot: slots[index]! })),
  ]);
  return typeof channels === 'string' ? fail(channels) : ok(channels);
}

/** Puts new channels into slots of one list: each into its own, or making room in one of the ways of `PLACEMENTS`. */
export const place = defineEdit<PlaceEdit>({
  apply(plan, edit) {
    const { list = 0 } = edit;
    // Channels of another plan may refer to what is there alone.
    const fresh = withReferencesThere(plan, 'leftOver', edit.channels);
    if (edit.slots) {
      const placed = intoSlots(plan, fresh, edit.slots, edit.range, list);
      return placed.ok ? ok({ ...plan, channels: placed.value }) : placed;
    }
    const preview = previewPlacing(
      plan.channels,
      edit.channels.length,
      edit.placement,
      edit.at,
      edit.range,
      list,
    );
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
    const channels = orderedChannels([
      ...plan.channels
        .filter(({ id }) => !gone.has(id))
        .map((c) => (moved.has(c.id) ? { ...c, slot: moved.get(c.id)! } : c)),
      ...fresh.map((channel, index) => ({ ...channel, list, slot: slots[index]! })),
    ]);
    if (typeof channels === 'string') return fail(channels);
    const next = { ...plan, channels };
    return ok(gone.size > 0 ? withoutDangling(next) : next);
  },
  label: ({ channels }) => ({
    ...{ of: 'place', n: channels.length },
    ...(channels.length === 1 && { name: channels[0]!.name }),
  }),
});
