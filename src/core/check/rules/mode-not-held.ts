import { isDigital, MODE_NAMES } from '../../radio';
import { channelRule, setMend } from '../finding';

/** A mode that the radio does not have. */
export const modeNotHeld = channelRule(
  'mode-not-held',
  'modes that the radio lacks',
  (channel, { model }) => {
    if (model.modes.includes(channel.mode)) return undefined;
    const analogue = !isDigital(channel.mode) && model.modes.find((mode) => mode === 'FM');
    return {
      severity: 'stop',
      field: 'mode',
      text: isDigital(channel.mode)
        ? `Only noise is heard: the ${model.name} has no ${MODE_NAMES[channel.mode]}.`
        : `Not understood on air: the ${model.name} has no ${MODE_NAMES[channel.mode]}.`,
      ...(analogue && { mend: setMend(channel, `Use ${analogue}`, { mode: analogue }) }),
    };
  },
);
