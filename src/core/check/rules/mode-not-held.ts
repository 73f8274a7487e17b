import { isDigital, MODE_TRAITS } from '../../radio';
import { channelRule, leaveOut, setMend } from '../finding';

/** A mode that the radio does not have. */
export const modeNotHeld = channelRule(
  'mode-not-held',
  'modes that the radio lacks',
  (channel, { model, factsOf }) => {
    if (!factsOf(channel).obstacles.includes('mode')) return undefined;
    // FM in two widths is understood by either; a sideband, Morse or AM is not, and neither is digital.
    const otherWidth = ({ FM: 'NFM', NFM: 'FM' } as const)[channel.mode as 'FM'];
    const usable = otherWidth && model.modes.includes(otherWidth) ? otherWidth : undefined;
    return {
      severity: 'stop',
      field: 'mode',
      text: isDigital(channel.mode)
        ? `Only noise is heard: the ${model.name} has no ${MODE_TRAITS[channel.mode].words}. Leave it to a radio that has.`
        : `Not understood on air: the ${model.name} has no ${MODE_TRAITS[channel.mode].words}. Leave it to a radio that has.`,
      mends: () => [
        ...(usable ? [setMend(channel, `Use ${usable}`, { mode: usable })] : []),
        leaveOut(channel),
        // That somebody is there can be heard in FM, if not what they say; answering them would be no use.
        ...(!usable && !isDigital(channel.mode) && model.modes.includes('FM')
          ? [setMend(channel, 'Only listen, in FM', { mode: 'FM', tx: null })]
          : []),
      ],
    };
  },
);
