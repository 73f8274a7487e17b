import { formatFrequency, formatKilohertz, MODE_WIDTHS } from '../../radio';
import type { Channel } from '../../plan';
import { near, nearTo, placeOf, placesOf, repeatersOf, type Neighbour } from '../neighbour';
import { setMend, type PlanRule, type RuleFinding } from '../finding';

/** More repeaters than this on one frequency are not looked at: no band has so many, and every channel is held against each. */
const MOST_ALIKE = 100;
/** Repeaters are filed by stretches of this width, Hz, which no mode exceeds. */
const STRETCH = 20_000;

type Files = Map<number, Neighbour[]>;

function file(files: Files, hz: number, neighbour: Neighbour): void {
  const stretch = Math.floor(hz / STRETCH);
  const there = files.get(stretch);
  if (!there) files.set(stretch, [neighbour]);
  else if (there.length < MOST_ALIKE) there.push(neighbour);
}

const around = (files: Files, hz: number): Neighbour[] => {
  const stretch = Math.floor(hz / STRETCH);
  return [stretch, stretch - 1, stretch + 1].flatMap((at) => files.get(at) ?? []);
};

/**
 * Sending on the output of a repeater nearby, or beside it by less than the mode is wide; or, without a shift, on a
 * repeater's input. Repeaters that only a directory knows count as well.
 */
export const overRepeater: PlanRule = {
  id: 'over-repeater',
  looksFor: 'sending over repeaters nearby',
  about: ['channel'],
  find: ({ plan, neighbours }) => {
    const [outputs, inputs]: [Files, Files] = [new Map(), new Map()];
    for (const neighbour of [...repeatersOf(plan), ...neighbours]) {
      file(outputs, neighbour.output, neighbour);
      file(inputs, neighbour.input, neighbour);
    }
    const places = neighbours.length > 0 ? placesOf(plan) : [];
    const reaches = (channel: Channel, neighbour: Neighbour) =>
      neighbour.id === undefined
        ? nearTo(channel, places, neighbour)
        : neighbour.id !== channel.id && near(placeOf(channel), neighbour);

    const findOne = (channel: Channel): RuleFinding | undefined => {
      const { tx, rx, mode, satellite } = channel;
      if (tx === null || satellite) return undefined;
      const away = ({ output }: Neighbour) => Math.abs(output - tx);
      // A repeater that this channel is for is not talked over by it, though another's entry may differ by a step.
      const hit = around(outputs, tx)
        .filter((one) => away(one) < MODE_WIDTHS[mode] && reaches(channel, one))
        .sort((a, b) => away(a) - away(b))[0];
      const mends = () => [setMend(channel, 'Make it listen only', { tx: null })];
      if (hit)
        return {
          severity: 'caution',
          id: channel.id,
          field: 'tx',
          text:
            away(hit) === 0
              ? `Talks over “${hit.name}”: ${formatFrequency(tx)} is its output.`
              : `Disturbs “${hit.name}”: its output ${formatFrequency(hit.output)} is only ${formatKilohertz(away(hit))} away, and this is ${formatKilohertz(MODE_WIDTHS[mode])} wide.`,
          mends,
        };
      if (tx !== rx) return undefined;
      const opened = around(inputs, tx).find((one) => one.input === tx && reaches(channel, one));
      if (!opened) return undefined;
      return {
        severity: 'caution',
        id: channel.id,
        field: 'tx',
        text: `May open “${opened.name}”: ${formatFrequency(tx)} is its input.`,
        mends,
      };
    };
    return plan.channels.flatMap((channel) => findOne(channel) ?? []);
  },
};
