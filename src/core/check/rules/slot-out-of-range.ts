import { previewPlacing } from '../../plan';
import type { PlanRule } from '../finding';

/** A slot that the radio does not have. */
export const slotOutOfRange: PlanRule = {
  id: 'slot-out-of-range',
  looksFor: 'slots that the radio does not have',
  about: ['channel'],
  find: ({ plan, model, factsOf }) => {
    const { first, count } = model.slots;
    const outside = plan.channels.filter((channel) => factsOf(channel).obstacles.includes('slot'));
    if (outside.length === 0) return [];
    // Asked for once: a plan of thousands made for another model has thousands outside, and the answer is the same for all.
    const free = previewPlacing(plan.channels, 1, 'next-free', first, model.slots).assigned[0]?.slot;
    return outside.map(({ id, slot }) => ({
      id,
      severity: 'stop',
      field: 'slot',
      text: `Not in the radio: the ${model.name} has slots ${first} to ${first + count - 1}.`,
      ...(free !== undefined && {
        mends: () => [
          {
            label: `Move to slot ${free}`,
            edit: { name: 'arrange', how: 'move', moves: [{ id, from: slot, to: free, list: 0 }] },
          },
        ],
      }),
    }));
  },
};
