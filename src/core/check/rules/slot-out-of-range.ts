import { previewPlacing, type Channel } from '../../plan';
import { hasSlot } from '../../fit';
import type { Model } from '../../models';
import { remembered } from '../../remember';
import { asSeen } from '../as-seen';
import type { CheckContext, Hit, PlanRule } from '../finding';
import type { Mend } from '../finding.schema';

const slots = asSeen('list', 'slot');

/** The first slot that is free, asked for when somebody wants to know: of thousands that are outside the answer is the same. */
function moveInside(channel: Channel, { plan, model }: CheckContext): Mend[] {
  const free = previewPlacing(plan.channels, 1, 'next-free', model.slots.first, model.slots).assigned[0]
    ?.slot;
  if (free === undefined) return [];
  const move = { id: channel.id, from: channel.slot, to: free, list: 0 };
  return [{ label: `Move to slot ${free}`, edit: { name: 'arrange', how: 'move', moves: [move] } }];
}

const outside = remembered((model: Model) =>
  remembered((channels: readonly Channel[]): Hit[] =>
    channels.flatMap((held, at) =>
      hasSlot(held, model)
        ? []
        : [
            {
              at: [at],
              say: ([channel]) => ({
                severity: 'stop',
                field: 'slot',
                text: `Not in the radio: the ${model.name} has slots ${model.slots.first} to ${model.slots.first + model.slots.count - 1}.`,
                mends: (context) => moveInside(channel!, context),
              }),
            },
          ],
    ),
  ),
);

/** A slot that the radio does not have. */
export const slotOutOfRange: PlanRule = {
  id: 'slot-out-of-range',
  looksFor: 'slots that the radio does not have',
  about: ['channel'],
  find: ({ plan, model }) => outside(model)(slots(plan.channels)),
};
