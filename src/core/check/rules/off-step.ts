import { formatFrequency, nearestOnSteps } from '../../radio';
import { channelRule, setMend } from '../finding';

/** A frequency between the radio's tuning steps. */
export const offStep = channelRule(
  'off-step',
  'frequencies between the tuning steps',
  (channel, { model, factsOf }) => {
    const { obstacles } = factsOf(channel);
    if (obstacles.includes('receive step')) {
      const nearest = nearestOnSteps(channel.rx, model.steps);
      return {
        severity: 'stop',
        field: 'rx',
        text: `${formatFrequency(channel.rx)} lies between the steps of the ${model.name}; it would tune ${formatFrequency(nearest)}.`,
        mends: () => [setMend(channel, `Receive on ${formatFrequency(nearest)}`, { rx: nearest })],
      };
    }
    if (obstacles.includes('transmit step')) {
      const nearest = nearestOnSteps(channel.tx!, model.steps);
      return {
        severity: 'stop',
        field: 'tx',
        text: `Would send beside the repeater: ${formatFrequency(channel.tx!)} lies between the steps of the ${model.name}.`,
        mends: () => [
          setMend(channel, `Send on ${formatFrequency(nearest)}`, {
            tx: nearest,
            txFixed: channel.txFixed,
          }),
        ],
      };
    }
    return undefined;
  },
);
