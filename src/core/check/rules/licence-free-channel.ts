import { citation, formatFrequency } from '../../radio';
import { channelRule, setMend } from '../finding';

/** Sending between the channels of a licence-free service, where nobody listens and others are disturbed. */
export const licenceFreeChannel = channelRule(
  'licence-free-channel',
  'sending between licence-free channels',
  (channel, { factsOf }) => {
    const { licence: answer } = factsOf(channel);
    if (answer?.verdict !== 'allowed') return undefined;
    const { channels } = answer.allocations.at(-1)!;
    const tx = channel.tx!;
    if (!channels || channels.includes(tx)) return undefined;
    const nearest = channels.reduce((best, next) =>
      Math.abs(next - tx) < Math.abs(best - tx) ? next : best,
    );
    const both = channel.rx === tx ? { rx: nearest } : {};
    return {
      severity: 'caution',
      field: 'tx',
      text: `Between two channels: ${formatFrequency(tx)} is none of the ${channels.length} that are licence-free; the nearest is ${formatFrequency(nearest)}.`,
      source: citation(answer.source),
      mends: () => [
        setMend(channel, `Use ${formatFrequency(nearest)}`, {
          ...both,
          tx: nearest,
          txFixed: channel.txFixed,
        }),
      ],
    };
  },
);
