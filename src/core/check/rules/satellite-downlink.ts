import { BAND_PLANS, bandPart, citation, formatFrequency, occupied } from '../../radio';
import { channelRule, setMend } from '../finding';

/** Sending where satellites send to the ground. */
export const satelliteDownlink = channelRule(
  'satellite-downlink',
  'sending where satellites are heard',
  (channel, { plan, factsOf }) => {
    if (!factsOf(channel).sends || channel.satellite) return undefined;
    const { region } = plan.owner;
    const { from, to } = occupied(channel.tx!, channel.mode);
    const part = bandPart(from, 'satellite', region) ?? bandPart(to, 'satellite', region);
    if (!part) return undefined;
    return {
      severity: 'caution',
      field: 'tx',
      text: `Drowns satellites for everybody around: they are heard from ${formatFrequency(part.from)} to ${formatFrequency(part.to)}.`,
      source: citation(BAND_PLANS[region].source),
      mends: () => [
        setMend(channel, 'Make it listen only', { tx: null }),
        setMend(channel, 'It works a satellite', { satellite: true }),
      ],
    };
  },
);
