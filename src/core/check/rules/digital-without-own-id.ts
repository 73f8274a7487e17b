import { isDigital } from '../../radio';
import { remembered } from '../../remember';
import type { Channel } from '../../plan';
import { asSeen } from '../as-seen';
import type { Hit, PlanRule } from '../finding';

const sent = asSeen('mode', 'tx');

const digital = remembered((channels: readonly Channel[]): Hit[] =>
  channels.flatMap(({ mode, tx }, at) =>
    tx === null || !isDigital(mode)
      ? []
      : [
          {
            at: [at],
            say: () => ({
              severity: 'caution',
              field: 'mode',
              text: 'Nobody sees who calls, and a network may refuse it: the radio’s own ID is not set. Set it on the Bench, among the values of this unit.',
            }),
          },
        ],
  ),
);

const NONE: Hit[] = [];

/** Digital channels that send, in a plan that sets no ID of the radio's own. */
export const digitalWithoutOwnId: PlanRule = {
  id: 'digital-without-own-id',
  looksFor: 'digital channels that send without the radio’s own ID',
  about: ['channel'],
  applies: ({ digital: has }) => has !== undefined,
  find({ plan, model }) {
    const set = plan.settings[model.id]?.[model.digital!.ownId];
    return typeof set === 'number' && set > 0 ? NONE : digital(sent(plan.channels));
  },
};
