import { sidesOf } from '../models';
import type { ChannelId, SetUp, SetUpSide, Zone } from '../plan';
import type { CheckContext } from './finding';

/** A side of a quick set-up that the radio holds, and what the radio has there. */
export interface SideOfSetUp {
  setUp: SetUp;
  at: number;
  list: number;
  side: SetUpSide | undefined;
  /** The side's name in a sentence. */
  name: string;
  /** The channels that the radio holds on it. */
  on: readonly ChannelId[];
}

/** The sides of all quick set-ups that the radio has room for. */
export function* setUpSides({ plan, model, held }: CheckContext): Generator<SideOfSetUp> {
  const sides = sidesOf(model);
  const on = sides.map((list) => [...held].filter(([, place]) => place.list === list).map(([id]) => id));
  for (const setUp of plan.setUps.slice(0, model.setUps!.count))
    for (const [at, list] of sides.entries())
      yield {
        ...{ setUp, at, list, side: setUp.sides[at], on: on[at]! },
        name: model.lists[list]!.name.toLowerCase(),
      };
}

/** Those that begin on a channel, with the zone whose channels the knob turns through, and those of it that are on this side. */
export function* memorySides(
  context: CheckContext,
): Generator<SideOfSetUp & { side: SetUpSide; zone: Zone | undefined; members: readonly ChannelId[] }> {
  const { plan, held } = context;
  for (const one of setUpSides(context)) {
    const { side, list, on } = one;
    if (!side || side.begins !== 'memory') continue;
    const zone = plan.zones.find(({ id }) => id === side.zone);
    const members = zone ? zone.members.filter((id) => held.get(id)?.list === list) : on;
    yield { ...one, side, zone, members };
  }
}

/** True where its first channel is not in the zone that the knob turns through. */
export const startsOutside = (side: SetUpSide, zone: Zone | undefined): zone is Zone =>
  zone !== undefined && side.start !== null && !zone.members.includes(side.start);
