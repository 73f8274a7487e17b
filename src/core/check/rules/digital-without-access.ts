import { channelRule, setMend } from '../finding';

/** DMR without a colour code and time slot, P25 without a network access code: nothing opens. */
export const digitalWithoutAccess = channelRule(
  'digital-without-access',
  'digital channels without colour code or NAC',
  (channel) => {
    const { mode, access } = channel;
    if (mode === 'DMR' && access.kind !== 'dmr')
      return {
        severity: 'caution',
        field: 'access',
        text: 'Opens nothing and hears nothing: DMR wants a colour code and a time slot.',
        mends: () => [
          setMend(channel, 'Use CC1 TS1', { access: { kind: 'dmr', colourCode: 1, timeSlot: 1 } }),
        ],
      };
    if (mode === 'P25' && access.kind !== 'nac')
      return {
        severity: 'caution',
        field: 'access',
        text: 'Opens nothing: P25 wants a network access code.',
        // The code that equipment comes with, TIA-102.BAAC.
        mends: () => [setMend(channel, 'Use NAC 293', { access: { kind: 'nac', nac: 0x293 } })],
      };
    return undefined;
  },
);
