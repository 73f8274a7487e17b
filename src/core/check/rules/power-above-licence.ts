import { citation, formatPower } from '../../radio';
import { nearestPower } from '../../fit';
import { channelRule, setMend } from '../finding';

/** More power on the radio than the licence allows there. */
export const powerAboveLicence = channelRule(
  'power-above-licence',
  'more power than the licence allows',
  (channel, { plan, model, factsOf }) => {
    const { licence: answer } = factsOf(channel);
    if (answer?.verdict !== 'allowed') return undefined;
    const power = nearestPower(channel.power, model);
    if (power <= answer.limit) return undefined;
    const lower = model.powers.find((choice) => choice.milliwatts <= answer.limit);
    return {
      severity: plan.owner.strict ? 'stop' : 'caution',
      field: 'power',
      text: `Sends ${formatPower(power)} where ${formatPower(answer.limit)} is allowed.`,
      source: citation(answer.source),
      mends: () => [
        lower
          ? setMend(channel, `Use ${formatPower(lower.milliwatts)}`, { power: lower.milliwatts })
          : setMend(channel, 'Make it listen only', { tx: null }),
      ],
    };
  },
);
