import { MODE_TRAITS } from '../../radio';
import { channelRule, setMend } from '../finding';

/** DMR without a colour code and time slot, P25 without a network access code: nothing opens. */
export const digitalWithoutAccess = channelRule(
  'digital-without-access',
  'digital channels without colour code or NAC',
  (channel, { factsOf }) => {
    const { mode, access } = channel;
    const wanted = MODE_TRAITS[mode].access;
    if (wanted === 'dmr' && access.kind !== 'dmr')
      return {
        // The radio would have to hold some code, and none is guessed.
        severity: factsOf(channel).obstacles.includes('colour code') ? 'stop' : 'caution',
        field: 'access',
        text: `Opens nothing and hears nothing: ${mode} needs a colour code and a time slot, and the channel has neither.`,
      };
    if (wanted === 'nac' && access.kind !== 'nac')
      return {
        severity: 'caution',
        field: 'access',
        text: `Opens nothing: ${mode} wants a network access code.`,
        // The code that equipment comes with, TIA-102.BAAC.
        mends: () => [setMend(channel, 'Use NAC 293', { access: { kind: 'nac', nac: 0x293 } })],
      };
    return undefined;
  },
);
