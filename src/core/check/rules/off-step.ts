import { formatFrequency, nearestOnSteps, onAnyStep } from '../../radio';
import { receiveBand } from '../../models';
import { canSend } from '../../fit';
import { channelRule, setMend } from '../finding';

/** A frequency between the radio's tuning steps. */
export const offStep = channelRule(
  'off-step',
  'frequencies between the tuning steps',
  (channel, { model }) => {
    if (receiveBand(model, channel.rx) && !onAnyStep(channel.rx, model.steps)) {
      const nearest = nearestOnSteps(channel.rx, model.steps);
      return {
        severity: 'stop',
        field: 'rx',
        text: `${formatFrequency(channel.rx)} lies between the steps of the ${model.name}; it would tune ${formatFrequency(nearest)}.`,
        mend: setMend(channel, `Receive on ${formatFrequency(nearest)}`, { rx: nearest }),
      };
    }
    if (canSend(channel, model) && !onAnyStep(channel.tx!, model.steps)) {
      const nearest = nearestOnSteps(channel.tx!, model.steps);
      return {
        severity: 'stop',
        field: 'tx',
        text: `Would send beside the repeater: ${formatFrequency(channel.tx!)} lies between the steps of the ${model.name}.`,
        mend: setMend(channel, `Send on ${formatFrequency(nearest)}`, {
          tx: nearest,
          txFixed: channel.txFixed,
        }),
      };
    }
    return undefined;
  },
);
