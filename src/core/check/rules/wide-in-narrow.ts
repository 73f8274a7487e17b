import { BAND_PLANS, bandPart, citation, formatFrequency, MODE_TRAITS } from '../../radio';
import { channelRule, setMend } from '../finding';

/** The widest that narrow modes are, Hz: a sideband. */
const NARROW_HZ = 3_000;

/** FM and other wide modes where custom keeps to narrow ones. */
export const wideInNarrow = channelRule(
  'wide-in-narrow',
  'wide modes in the narrow parts of the bands',
  (channel, { plan, factsOf }) => {
    const { licence } = factsOf(channel);
    // Where the licence does not reach, that is what there is to say; AM has its old places on shortwave.
    if (licence?.verdict !== 'allowed' || MODE_TRAITS[channel.mode].width <= NARROW_HZ) return undefined;
    const { region } = plan.owner;
    const part = bandPart(channel.tx!, 'narrow', region);
    if (!part) return undefined;
    if (channel.mode === 'AM' && channel.tx! < 30_000_000) return undefined;
    return {
      severity: 'hint',
      field: 'mode',
      text: `Takes the room of many: ${formatFrequency(part.from)} to ${formatFrequency(part.to)} is kept for narrow modes, and this is ${MODE_TRAITS[channel.mode].words}.`,
      source: citation(BAND_PLANS[region].source),
      mends: () => [setMend(channel, 'Make it listen only', { tx: null })],
    };
  },
);
