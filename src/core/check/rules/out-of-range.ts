import { formatFrequency } from '../../radio';
import { channelRule, setMend } from '../finding';

/** Receive or transmit outside what the radio can tune. */
export const outOfRange = channelRule(
  'out-of-range',
  'frequencies that the radio cannot tune',
  (channel, { model, factsOf }) => {
    const { obstacles, sends } = factsOf(channel);
    if (obstacles.includes('receive range'))
      return {
        severity: 'stop',
        field: 'rx',
        text: `Never heard: the ${model.name} does not tune ${formatFrequency(channel.rx)}.`,
      };
    if (channel.tx !== null && !sends)
      return {
        severity: 'caution',
        field: 'tx',
        text: `Hears, but will not send: the ${model.name} does not transmit on ${formatFrequency(channel.tx)}.`,
        mends: () => [setMend(channel, 'Make it listen only', { tx: null })],
      };
    return undefined;
  },
);
