import { formatFrequency, formatKilohertz, MODE_TRAITS } from '../../radio';
import type { Channel, Owner } from '../../plan';
import { near, nearTo, placeOf, placesOf, repeatersOf, type Neighbour } from '../neighbour';
import { remembered } from '../../remember';
import { asSeen } from '../as-seen';
import { setMend, type Hit, type PlanRule } from '../finding';

/** More repeaters than this on one frequency are not looked at: no band has so many, and every channel is held against each. */
const MOST_ALIKE = 100;
/** Repeaters are filed by stretches of this width, Hz, which no mode exceeds. */
const STRETCH = 20_000;

type Files = Map<number, Neighbour[]>;
/** Repeaters by what they send on, and by what they listen on. */
interface Filed {
  outputs: Files;
  inputs: Files;
}

function file(files: Files, hz: number, neighbour: Neighbour): void {
  const stretch = Math.floor(hz / STRETCH);
  const there = files.get(stretch);
  if (!there) files.set(stretch, [neighbour]);
  else if (there.length < MOST_ALIKE) there.push(neighbour);
}

function fileAll(neighbours: readonly Neighbour[]): Filed {
  const filed: Filed = { outputs: new Map(), inputs: new Map() };
  for (const neighbour of neighbours) {
    file(filed.outputs, neighbour.output, neighbour);
    file(filed.inputs, neighbour.input, neighbour);
  }
  return filed;
}

/** What a directory knows changes by the hour: filed once. */
const filedOf = remembered(fileAll);
const onAir = asSeen('rx', 'tx', 'mode', 'satellite', 'source');

/** Calls back for each of the files around a frequency. */
function around(files: Files, hz: number, each: (neighbour: Neighbour) => void): void {
  const stretch = Math.floor(hz / STRETCH);
  for (const at of [stretch, stretch - 1, stretch + 1]) files.get(at)?.forEach(each);
}

/** A repeater that a channel is in the way of, and how. */
type InTheWay = { one: Neighbour } & ({ how: 'over'; away: number } | { how: 'opens' });

/** All that is in the way of somebody: worked out anew when the air of a channel changes, or what is known around. */
const inTheWay = remembered((owner: Owner) =>
  remembered((neighbours: readonly Neighbour[]) =>
    remembered((channels: readonly Channel[]): Hit[] => {
      const filed = [fileAll(repeatersOf({ owner, channels })), filedOf(neighbours)];
      const places = neighbours.length > 0 ? placesOf(channels) : [];
      const placeIn = new Map<string, number>(channels.map(({ id }, at) => [id, at]));
      const reaches = (channel: Channel, neighbour: Neighbour) =>
        neighbour.id === undefined
          ? nearTo(channel, places, neighbour)
          : neighbour.id !== channel.id && near(placeOf(channel), neighbour);

      const find = (channel: Channel): InTheWay | undefined => {
        const { tx, rx, mode, satellite } = channel;
        if (tx === null || satellite) return undefined;
        // A repeater that this channel is for is not talked over by it, though another's entry may differ by a step.
        let hit: Neighbour | undefined;
        let away: number = MODE_TRAITS[mode].width;
        for (const { outputs } of filed)
          around(outputs, tx, (one) => {
            const distance = Math.abs(one.output - tx);
            if (distance < away && reaches(channel, one)) [hit, away] = [one, distance];
          });
        if (hit) return { one: hit, how: 'over', away };
        if (tx !== rx) return undefined;
        let opened: Neighbour | undefined;
        for (const { inputs } of filed)
          around(inputs, tx, (one) => {
            if (!opened && one.input === tx && reaches(channel, one)) opened = one;
          });
        return opened && { one: opened, how: 'opens' };
      };
      return channels.flatMap((channel, at): Hit[] => {
        const found = find(channel);
        if (!found) return [];
        const other = found.one.id === undefined ? undefined : placeIn.get(found.one.id)!;
        return [
          {
            at: other === undefined ? [at] : [at, other],
            say: ([own, repeater]) => ({
              severity: 'caution',
              field: 'tx',
              text: textOf(own!, found, repeater?.name ?? found.one.name),
              mends: () => [setMend(own!, 'Make it listen only', { tx: null })],
            }),
          },
        ];
      });
    }),
  ),
);

function textOf({ tx, mode }: Channel, found: InTheWay, name: string): string {
  const sends = formatFrequency(tx!);
  if (found.how === 'opens') return `May open “${name}”: ${sends} is its input.`;
  if (found.away === 0) return `Talks over “${name}”: ${sends} is its output.`;
  return `Disturbs “${name}”: its output ${formatFrequency(found.one.output)} is only ${formatKilohertz(found.away)} away, and this is ${formatKilohertz(MODE_TRAITS[mode].width)} wide.`;
}

/**
 * Sending on the output of a repeater nearby, or beside it by less than the mode is wide; or, without a shift, on a
 * repeater's input. Repeaters that only a directory knows count as well.
 */
export const overRepeater: PlanRule = {
  id: 'over-repeater',
  looksFor: 'sending over repeaters nearby',
  about: ['channel'],
  find: ({ plan, neighbours }) => inTheWay(plan.owner)(neighbours)(onAir(plan.channels)),
};
