import { fail, ok } from '../../result';
import { orderedChannels } from '../plan';
import { MISSING } from './change';
import { defineEdit } from './define';
import type { ArrangeEdit } from './arrange.schema';

/** Moves channels from slot to slot, also into another list; each says where it was, and is refused where it is not there any more. */
export const arrange = defineEdit<ArrangeEdit>({
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
  label: ({ how, moves }) => ({ of: 'arrange', how, n: moves.length }),
});
