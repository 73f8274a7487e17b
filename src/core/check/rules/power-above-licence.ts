import { citation, formatPower, mayTransmit } from '../../radio';
import { canSend, nearestPower } from '../../fit';
import { channelRule, setMend } from '../finding';

/** More power on the radio than the licence allows there. */
export const powerAboveLicence = channelRule(
  'power-above-licence',
  'more power than the licence allows',
  (channel, { plan, model }) => {
    if (!canSend(channel, model)) return undefined;
    const { strict, ...licence } = plan.owner;
    const answer = mayTransmit({ hz: channel.tx!, mode: channel.mode, ...licence });
    const power = nearestPower(channel.power, model);
    if (answer.verdict !== 'allowed' || power <= answer.limit) return undefined;
    const lower = model.powers.find((choice) => choice.milliwatts <= answer.limit);
    return {
      severity: strict ? 'stop' : 'caution',
      field: 'power',
      text: `Sends ${formatPower(power)} where ${formatPower(answer.limit)} is allowed.`,
      source: citation(answer.source),
      mend: lower
        ? setMend(channel, `Use ${formatPower(lower.milliwatts)}`, { power: lower.milliwatts })
        : setMend(channel, 'Make it listen only', { tx: null }),
    };
  },
);
