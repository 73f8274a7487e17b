import { citation, mayTransmit } from '../../radio';
import { canSend } from '../../fit';
import { distressOf } from './distress-channel';
import { channelRule, setMend } from '../finding';

/** A transmit frequency, with the width of its mode, where the owner of the plan may not send. */
export const outsideLicence = channelRule(
  'outside-licence',
  'transmitting where the licence does not reach',
  (channel, { plan, model }) => {
    // On a distress channel that is the reason, and it is said.
    if (!canSend(channel, model) || distressOf(channel, plan, model)) return undefined;
    const { strict, ...licence } = plan.owner;
    const answer = mayTransmit({ hz: channel.tx!, mode: channel.mode, ...licence });
    if (answer.verdict === 'allowed') return undefined;
    return {
      severity: strict ? 'stop' : 'caution',
      field: answer.verdict === 'mode' ? 'mode' : 'tx',
      text: `Outside your licence: ${answer.reason}`,
      source: citation(answer.source),
      mend: setMend(channel, 'Make it listen only', { tx: null }),
    };
  },
);
