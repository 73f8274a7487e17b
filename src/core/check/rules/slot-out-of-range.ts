import { previewPlacing, type Channel } from '../../plan';
import { hasSlot } from '../../fit';
import { slotsOf, type Model } from '../../models';
import { remembered } from '../../remember';
import { asSeen } from '../as-seen';
import type { CheckContext, Hit, PlanRule } from '../finding';
import type { Mend } from '../finding.schema';

const slots = asSeen('list', 'slot');

/** The first slot that is free, asked for when somebody wants to know: of thousands that are outside the answer is the same. */
function moveInside(channel: Channel, { plan, model }: CheckContext): Mend[] {
  const list = slotsOf(model, channel.list) ? channel.list : 0;
  const range = slotsOf(model, list)!;
  const free = previewPlacing(plan.channels, 1, 'next-free', range.first, range, list).assigned[0]?.slot;
  if (free === undefined) return [];
  const move = { id: channel.id, from: channel.slot, to: free, list };
  return [{ label: `Move to slot ${free}`, edit: { name: 'arrange', how: 'move', moves: [move] } }];
}

/** Which slots there are, in a sentence. */
function slotsThere({ list }: Channel, model: Model): string {
  const range = slotsOf(model, list);
  if (!range) return `Not in the radio: the ${model.name} has no list of that number.`;
  const slots = `${range.first} to ${range.first + range.count - 1}`;
  const which =
    model.lists.length > 1 ? `on “${model.lists[list]!.name}” the ${model.name}` : `the ${model.name}`;
  return `Not in the radio: ${which} has slots ${slots}.`;
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
                text: slotsThere(held, model),
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
