import type { Channel } from '../../plan';
import type { Model } from '../../models';
import { isDigital } from '../../radio';
import { remembered } from '../../remember';
import { asSeen } from '../as-seen';
import type { CheckContext, Hit, PlanRule } from '../finding';
import type { Mend } from '../finding.schema';

const sent = asSeen('mode', 'tx');

/** Sets the owner's call sign on the radio, where the plan has one. */
function setOwnCall({ plan, model }: CheckContext): Mend[] {
  const { callSign } = plan.owner;
  if (callSign === '' || model.ownCall === null) return [];
  const settings = {
    ...plan.settings,
    [model.id]: { ...plan.settings[model.id], [model.ownCall]: callSign },
  };
  return [{ label: `Set the call sign ${callSign}`, edit: { name: 'describe', set: { settings } } }];
}

const digital = remembered((model: Model) =>
  remembered((channels: readonly Channel[]): Hit[] =>
    channels.flatMap(({ mode, tx }, at) =>
      tx === null || !isDigital(mode) || !model.modes.includes(mode)
        ? []
        : [
            {
              at: [at],
              say: () => ({
                severity: 'stop',
                field: 'mode',
                text: `Sends nothing: the ${model.name} transmits ${mode} only when its own call sign is set.`,
                mends: setOwnCall,
              }),
            },
          ],
    ),
  ),
);

const NONE: Hit[] = [];

/** Digital channels that send, on a radio that does so only with a call sign of its own, in a plan that sets none. */
export const digitalWithoutOwnCall: PlanRule = {
  id: 'digital-without-own-call',
  looksFor: 'digital channels that send without the radio’s own call sign',
  about: ['channel'],
  applies: ({ ownCall }) => ownCall !== null,
  find({ plan, model }) {
    const set = plan.settings[model.id]?.[model.ownCall!];
    return typeof set === 'string' && set.trim() !== '' ? NONE : digital(model)(sent(plan.channels));
  },
};
