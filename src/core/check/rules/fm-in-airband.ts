import { AIR_NAMES_SOURCE, citation, formatFrequency, inNamedAirband } from '../../radio';
import { channelRule, leaveOut, setMend } from '../finding';

/** FM where aircraft speak AM. */
export const fmInAirband = channelRule('fm-in-airband', 'FM on airband channels', (channel, { model }) => {
  const { rx, mode } = channel;
  if ((mode !== 'FM' && mode !== 'NFM') || !inNamedAirband(rx)) return undefined;
  return {
    severity: 'caution',
    field: 'mode',
    text: `Aircraft are not understood: on ${formatFrequency(rx)} they speak AM.`,
    source: citation(AIR_NAMES_SOURCE),
    mends: () => [
      ...(model.modes.includes('AM') ? [setMend(channel, 'Use AM', { mode: 'AM' })] : []),
      leaveOut(channel),
    ],
  };
});
