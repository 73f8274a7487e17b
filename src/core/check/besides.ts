import { fit, type Fit } from '../fit';
import { capital } from '../text';
import { homeListOf, sidesOf, type Model } from '../models';
import type { Channel, ChannelId, Plan, SetUp, SetUpSide, Zone } from '../plan';
import { remembered } from '../remember';
import type { Severity } from './finding';
import type { BesideFinding, Mend } from './finding.schema';
import { hexMixUps } from './hex-mix-up';
import type { Neighbour } from './neighbour';
import { checkWhole } from './whole-plan';
import { checkWiring } from './wiring';

/** What Check says of the plan as a whole and of what stands beside the channels: banks and quick set-ups, and the traps that lie between them. */

/** A quick set-up with one of its sides otherwise. */
const setSide = (setUp: SetUp, side: number, set: Partial<SetUpSide>, label: string): Mend => ({
  label,
  edit: {
    name: 'change',
    kind: 'setUp',
    changes: [
      {
        id: setUp.id,
        set: { sides: setUp.sides.map((one, at) => (at === side ? { ...one, ...set } : one)) },
      },
    ],
  },
});

interface Context {
  plan: Plan;
  model: Model;
  channels: ReadonlyMap<ChannelId, Channel>;
  /** The channels that the radio will hold. */
  held: ReadonlyMap<ChannelId, { list: number; slot: number }>;
}

type Said = Omit<BesideFinding, 'kind' | 'id' | 'rule'>;
const say = (severity: Severity, text: string, mends: Mend[] = []): Said => ({ severity, text, mends });

/** What is said of one side of a quick set-up. */
function* sideTraps(setUp: SetUp, at: number, list: number, context: Context): Generator<[string, Said]> {
  const { plan, model, channels, held } = context;
  const side = setUp.sides[at];
  const name = model.lists[list]!.name.toLowerCase();
  const on = [...held].filter(([, place]) => place.list === list).map(([id]) => id);
  if (!side || side.begins === 'dial') {
    if (on.length === 0) return;
    yield [
      'set-up-on-dial',
      say(
        'caution',
        `Leaves the ${name} side on its dial: ${on.length === 1 ? 'its channel will look lost. It is' : `its ${on.length} channels will look lost. They are`} there: press the memory key.`,
        side ? [setSide(setUp, at, { begins: 'memory' }, `Begin on a channel of the ${name} side`)] : [],
      ),
    ];
    return;
  }
  if (side.begins === 'home') {
    const home = homeListOf(model, list);
    if (home !== undefined && [...held.values()].some((place) => place.list === home)) return;
    yield [
      'set-up-without-home',
      say(
        'caution',
        `Calls the home channel of the ${name} side, and none is set: the side stays where it was.`,
        [setSide(setUp, at, { begins: 'memory' }, 'Begin on a channel instead')],
      ),
    ];
    return;
  }
  const zone = plan.zones.find(({ id }) => id === side.zone);
  const members = zone ? zone.members.filter((id) => held.get(id)?.list === list) : on;
  const word = model.zones?.word ?? 'zone';
  if (members.length === 0)
    yield [
      'set-up-without-channels',
      say(
        'caution',
        zone
          ? `Turns the ${name} side to the ${word} “${zone.name}”, which has no channel there: the display stays empty.`
          : `Turns the ${name} side to its channels, and it has none.`,
        zone ? [setSide(setUp, at, { zone: null }, 'Use all channels of the side')] : [],
      ),
    ];
  else if (zone && side.start !== null && !zone.members.includes(side.start)) {
    const start = channels.get(side.start);
    const first = channels.get(members[0]!)!;
    yield [
      'set-up-start-outside',
      say(
        'caution',
        `Begins on “${start?.name ?? ''}”, which the ${word} “${zone.name}” does not hold: one turn of the knob and it is gone.`,
        [
          setSide(setUp, at, { start: first.id }, `Begin on “${first.name}”`),
          ...(start && held.get(side.start)?.list === list ? [addTo(zone, start, word)] : []),
        ],
      ),
    ];
  } else if (side.start !== null && held.get(side.start)?.list !== list)
    yield [
      'set-up-start-elsewhere',
      say('caution', `Begins on a channel that the ${name} side does not have: it begins on its first.`, [
        setSide(setUp, at, { start: null }, 'Begin on its first channel'),
      ]),
    ];
}

const addTo = (zone: Zone, channel: Channel, word: string): Mend => ({
  label: `Put “${channel.name}” into the ${word} “${zone.name}”`,
  edit: {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zone.id, set: { members: [...zone.members, channel.id] } }],
  },
});

/** What some of the first zones have; the very same for the same zones. */
const membersIn = remembered((zones: Plan['zones']) => {
  const known = new Map<number, ReadonlySet<ChannelId>>();
  return (count: number) => {
    let members = known.get(count);
    if (!members)
      known.set(count, (members = new Set(zones.slice(0, count).flatMap((zone) => zone.members))));
    return members;
  };
});

function* zoneTraps({ plan, model, held }: Context): Generator<BesideFinding> {
  if (!model.zones || plan.zones.length === 0) return;
  const { word, count } = model.zones;
  for (const [at, zone] of plan.zones.entries()) {
    if (at >= count || zone.members.some((id) => held.has(id))) continue;
    yield {
      rule: 'empty-zone',
      kind: 'zone',
      id: zone.id,
      ...say('hint', `An empty ${word}: whoever turns to it hears nothing and sees no channel.`, [
        { label: `Remove the ${word}`, edit: { name: 'remove', kind: 'zone', ids: [zone.id] } },
      ]),
    };
  }
  const inSome = membersIn(plan.zones)(count);
  const sides = new Set(sidesOf(model));
  const outside = plan.channels.filter(({ id, list }) => sides.has(list) && held.has(id) && !inSome.has(id));
  if (outside.length === 0 || inSome.size === 0) return;
  const names = outside.slice(0, 3).map(({ name }) => `“${name}”`);
  yield {
    rule: 'outside-zones',
    kind: 'zone',
    id: plan.zones[0]!.id,
    ...say(
      'hint',
      `${outside.length === 1 ? 'One channel is' : `${outside.length} channels are`} in no ${word}: ${names.join(', ')}${outside.length > 3 ? ' and others' : ''}. With ${word}s switched on the knob passes ${outside.length === 1 ? 'it' : 'them'} by.`,
    ),
  };
}

/** Everything worth saying of a plan as a whole, its zones, quick set-ups and wiring on a model, with the ways out. */
export function checkBesides(
  plan: Plan,
  model: Model,
  fitted: Fit = fit(plan, model),
  neighbours: readonly Neighbour[] = [],
): BesideFinding[] {
  const context: Context = {
    plan,
    model,
    channels: new Map(plan.channels.map((channel) => [channel.id, channel])),
    held: new Map(fitted.channels.map(({ id, list, slot }) => [id, { list, slot }])),
  };
  const found = [...checkWhole(plan, model), ...zoneTraps(context), ...checkWiring(plan, model)];
  if (model.digital) found.push(...hexMixUps(plan, neighbours));
  if (model.setUps)
    for (const setUp of plan.setUps.slice(0, model.setUps.count))
      for (const [at, list] of sidesOf(model).entries())
        for (const [rule, said] of sideTraps(setUp, at, list, context))
          found.push({ rule, kind: 'setUp', id: setUp.id, ...said, text: capital(said.text) });
  return found;
}
