import { homeListOf, sidesOf, type Model } from '../models';
import { SIDE_WORDS, type Plan, type SetUp, type SetUpSide } from '../plan';
import { channelOf } from './sides';

/** A side of which nothing was said yet: on its list, at its beginning. */
export const newSide = (): SetUpSide => ({
  begins: 'memory',
  zone: null,
  start: null,
  skipSet: null,
  scanning: false,
  shows: 'name',
  autoDial: '',
});

/**
 * What a quick set-up does to a side, in a few words: `Day 1 from Ullsmere Hill, scanning without No weather`, `home 70 cm`,
 * `the dial`.
 */
export function sideSentence(side: SetUpSide | undefined, list: number, plan: Plan, model: Model): string {
  if (!side || side.begins === 'dial') return 'the dial, its channels out of sight';
  const more = [
    ...(side.shows === 'frequency' ? ['showing frequencies'] : []),
    ...(side.autoDial ? [`dialling ${side.autoDial}`] : []),
  ];
  if (side.begins === 'home') return [homeWords(list, plan, model), ...more].join(', ');
  const zone = plan.zones.find(({ id }) => id === side.zone);
  const start = channelOf(plan, side.start);
  const where = zone ? zone.name : `all ${model.lists[list]!.name.toLowerCase()} channels`;
  return [
    `${where}${start ? ` from ${start.name || 'a channel without a name'}` : ''}`,
    ...scanWords(side, plan),
    ...more,
  ].join(', ');
}

/** The home channel of a side by its name, where there is one; several are one a band. */
function homeWords(list: number, plan: Plan, model: Model): string {
  const homes = plan.channels.filter((channel) => channel.list === homeListOf(model, list));
  if (homes.length === 0) return 'its home channel, which is not set';
  return homes.length === 1
    ? `home, ${homes[0]!.name || 'a channel without a name'}`
    : 'the home channel of its band';
}

function scanWords({ scanning, skipSet }: SetUpSide, plan: Plan): string[] {
  if (!scanning) return [];
  const set = plan.skipSets.find(({ id }) => id === skipSet);
  if (!set) return ['scanning'];
  return [set.way === 'only' ? `scanning only ${set.name}` : `scanning, skipping ${set.name}`];
}

/** What a quick set-up does to every side, a line each: `left: …`. */
export const setUpLines = (setUp: SetUp, plan: Plan, model: Model): string[] =>
  sidesOf(model).map(
    (list, at) =>
      `${model.lists[list]!.name.toLowerCase()}: ${sideSentence(setUp.sides[at], list, plan, model)}`,
  );

/** In what two quick set-ups differ: the sides and fields that are not the same in both. */
export function setUpDifference(
  one: Pick<SetUp, 'sides'>,
  other: Pick<SetUp, 'sides'>,
): { side: number; field: keyof SetUpSide }[] {
  const count = Math.max(one.sides.length, other.sides.length);
  return Array.from({ length: count }, (_, side) => side).flatMap((side) => {
    const [a, b] = [one.sides[side] ?? newSide(), other.sides[side] ?? newSide()];
    return SIDE_WORDS.flatMap(([field]) => (a[field] === b[field] ? [] : [{ side, field }]));
  });
}
