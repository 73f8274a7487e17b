import { formatFrequency } from '../../radio';
import { channelRule, setMend } from '../finding';

/** Receive or transmit outside what the radio can tune. */
export const outOfRange = channelRule(
  'out-of-range',
  'frequencies that the radio cannot tune',
  (channel, { model, factsOf }) => {
    const radio = model.unit?.called ?? `the ${model.name}`;
    const { obstacles, sends } = factsOf(channel);
    if (obstacles.includes('receive range'))
      return {
        severity: 'stop',
        field: 'rx',
        text: `Never heard: ${radio} does not tune ${formatFrequency(channel.rx)} MHz.`,
      };
    if (channel.tx !== null && !sends)
      return {
        severity: 'caution',
        field: 'tx',
        text: `Hears, but will not send: ${radio} does not transmit on ${formatFrequency(channel.tx)} MHz.`,
        mends: () => [setMend(channel, 'Make it listen only', { tx: null })],
      };
    return undefined;
  },
);
