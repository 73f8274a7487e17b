import { citation } from '../../radio';
import { distressOf } from './distress-channel';
import { channelRule, setMend } from '../finding';

/** A transmit frequency, with the width of its mode, where the owner of the plan may not send. */
export const outsideLicence = channelRule(
  'outside-licence',
  'transmitting where the licence does not reach',
  (channel, context) => {
    const { licence: answer } = context.factsOf(channel);
    // On a distress channel that is the reason, and it is said.
    if (!answer || answer.verdict === 'allowed' || distressOf(channel, context)) return undefined;
    return {
      severity: context.plan.owner.strict ? 'stop' : 'caution',
      field: answer.verdict === 'mode' ? 'mode' : 'tx',
      text: `Outside your licence: ${answer.reason}`,
      source: citation(answer.source),
      mends: () => [setMend(channel, 'Make it listen only', { tx: null })],
    };
  },
);
