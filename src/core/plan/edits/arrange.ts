import { z } from 'zod';
import { fail, ok } from '../../result';
import { CHANNEL_LIMIT, LIST_LIMIT, SLOT_LIMIT } from '../channel';
import { channelIdSchema } from '../ids';
import { KINDS } from '../kinds';
import { orderedChannels } from '../plan';
import { countOf } from '../record';
import { MISSING } from './change';
import { defineEdit } from './define';

const slot = z.int().min(0).max(SLOT_LIMIT);
const HOW = { move: 'Move', swap: 'Swap', 'close gaps': 'Close gaps:', sort: 'Sort', renumber: 'Renumber' };

/** Moves channels from slot to slot, also into another list; each says where it was, and is refused where it is not there any more. */
export const arrange = defineEdit({
  schema: z.object({
    name: z.literal('arrange'),
    how: z.enum(Object.keys(HOW) as (keyof typeof HOW)[]),
    moves: z
      .array(
        z.object({
          id: channelIdSchema,
          from: slot,
          to: slot,
          /** The list that it goes to, where that is another one. */
          list: z
            .int()
            .min(0)
            .max(LIST_LIMIT - 1)
            .optional(),
        }),
      )
      .min(1)
      .max(CHANNEL_LIMIT),
  }),
  apply(plan, { moves }) {
    const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
    const to = new Map<string, { slot: number; list?: number }>();
    for (const move of moves) {
      const channel = byId.get(move.id);
      if (!channel) return fail(`Channel ${move.id} ${MISSING}.`);
      if (channel.slot !== move.from)
        return fail(`“${channel.name}” is in slot ${channel.slot} now, not ${move.from}.`);
      to.set(move.id, { slot: move.to, ...(move.list !== undefined && { list: move.list }) });
    }
    const channels = orderedChannels(
      plan.channels.map((channel) => {
        const moved = to.get(channel.id);
        return moved ? { ...channel, ...moved } : channel;
      }),
    );
    return typeof channels === 'string' ? fail(channels) : ok({ ...plan, channels });
  },
  label: ({ how, moves }) => `${HOW[how]} ${countOf(moves.length, KINDS.channel)}`,
});
