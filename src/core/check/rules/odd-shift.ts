import {
  citation,
  formatFrequency,
  formatShift,
  marineChannel,
  SHIFT_SOURCES,
  usualShift,
} from '../../radio';
import { transmitBand } from '../../models';
import { channelRule, setMend } from '../finding';

/** A shift that no repeater here uses: the input that it sends on opens nothing. */
export const oddShift = channelRule(
  'odd-shift',
  'shifts unlike those of the repeaters here',
  (channel, { plan, model }) => {
    if (channel.tx === null || channel.tx === channel.rx || channel.satellite) return undefined;
    if (marineChannel(channel.rx, channel.tx)) return undefined;
    const { region } = plan.owner;
    const shift = channel.tx - channel.rx;
    const here = usualShift(channel.rx, region);
    if (here?.shift === shift) return undefined;
    if (here)
      return {
        severity: 'caution',
        field: 'tx',
        text: `Likely opens no repeater: outputs around ${formatFrequency(channel.rx)} listen ${formatShift(here.shift)} MHz away, this sends ${formatShift(shift)}.`,
        source: citation(SHIFT_SOURCES[region]),
        mends: () => [
          setMend(channel, `Use ${formatShift(here.shift)}`, {
            tx: channel.rx + here.shift,
            txFixed: false,
          }),
        ],
      };
    const reversed = usualShift(channel.tx, region);
    const { rx, tx } = channel;
    if (reversed?.shift === -shift)
      return {
        severity: 'caution',
        field: 'tx',
        text: `The wrong way round: it listens where ${formatFrequency(channel.tx)} is heard by the repeater and sends on its output.`,
        mends: () => [setMend(channel, 'Turn it round', { rx: tx, tx: rx, txFixed: false })],
      };
    if (
      transmitBand(model, channel.tx) &&
      transmitBand(model, channel.rx) !== transmitBand(model, channel.tx)
    )
      return {
        severity: 'hint',
        field: 'tx',
        text: `Sends in another band than it hears: ${formatFrequency(channel.tx)}.`,
      };
    return {
      severity: 'hint',
      field: 'tx',
      text: `A split: there is no usual shift at ${formatFrequency(channel.rx)}.`,
    };
  },
);
