import { z } from 'zod';
import { fail, ok } from '../../result';
import { CHANNEL_LIMIT, LIST_LIMIT, newChannelSchema, SLOT_LIMIT } from '../channel';
import { KINDS } from '../kinds';
import { orderedChannels } from '../plan';
import { countOf } from '../record';
import { withoutDangling } from '../references';
import { PLACEMENTS, previewPlacing } from '../slots';
import { defineEdit } from './define';

const slot = z.int().min(0).max(SLOT_LIMIT);

/** Puts new channels into slots of one list, making room in one of the ways of `PLACEMENTS`. */
export const place = defineEdit({
  schema: z.object({
    name: z.literal('place'),
    channels: z.array(newChannelSchema).min(1).max(CHANNEL_LIMIT),
    placement: z.enum(PLACEMENTS),
    /** The list of slots; the first where it is not said. */
    list: z
      .int()
      .min(0)
      .max(LIST_LIMIT - 1)
      .optional(),
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
  apply(plan, edit) {
    const { list = 0 } = edit;
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
      ...edit.channels.map((channel, index) => ({ ...channel, list, slot: slots[index]! })),
    ]);
    if (typeof channels === 'string') return fail(channels);
    const next = { ...plan, channels };
    return ok(gone.size > 0 ? withoutDangling(next) : next);
  },
  label: ({ channels }) =>
    channels.length === 1
      ? `Place “${channels[0]!.name}”`
      : `Place ${countOf(channels.length, KINDS.channel)}`,
});
