import { previewPlacing } from '../../plan';
import { channelRule } from '../finding';

/** A slot that the radio does not have. */
export const slotOutOfRange = channelRule(
  'slot-out-of-range',
  'slots that the radio does not have',
  (channel, { plan, model }) => {
    const { first, count } = model.slots;
    if (channel.slot >= first && channel.slot < first + count) return undefined;
    const free = previewPlacing(plan.channels, 1, 'next-free', first, model.slots).assigned[0]?.slot;
    return {
      severity: 'stop',
      field: 'slot',
      text: `Not in the radio: the ${model.name} has slots ${first} to ${first + count - 1}.`,
      ...(free !== undefined && {
        mend: {
          label: `Move to slot ${free}`,
          edit: { name: 'arrange', how: 'move', moves: [{ id: channel.id, from: channel.slot, to: free }] },
        },
      }),
    };
  },
);
