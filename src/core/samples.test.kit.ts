import * as fc from './property.test.kit';
import { CODES, isFrequency, MODES, TONES, type Access, type Squelch } from './radio';
import {
  applyEdit,
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type Edit,
  type Plan,
  type PlanId,
  type Zone,
  type ZoneId,
} from './plan';
import type { Model } from './models';
import { ternP2 } from './models/tern-p2';

/** Makers of plans and generators for tests; not used by the application. */

export const id = (n: number) => `ch_test${String(n).padStart(4, '0')}` as ChannelId;

export function channel(slot: number, rx: number, fields: Partial<ChannelFields> = {}): Channel {
  return { id: id(slot), list: 0, slot, ...channelDefaults(rx), name: `Station ${slot}`, ...fields };
}

export function plan(channels: Channel[], owner: Partial<Plan['owner']> = {}): Plan {
  const details = {
    name: 'Test plan',
    modelId: 'tern-p2',
    owner: { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false, ...owner },
  };
  return { ...newPlan('pl_test0001' as PlanId, details), channels };
}

/** A radio that can do everything, for rules about what no Tern has. */
export const everything: Model = {
  ...ternP2,
  id: 'everything',
  name: 'Everything',
  modes: [...MODES],
  names: { length: 16, characters: `${ternP2.names.characters}abcdefghijklmnopqrstuvwxyz` },
  steps: [...ternP2.steps, '8.33'],
  powers: [100, 50, 25, 15, 5, 2, 0.5].map((watts) => ({ label: `${watts} W`, milliwatts: watts * 1000 })),
  bands: [
    {
      name: 'all',
      receive: { from: 100_000, to: 1_300_000_000 },
      transmit: { from: 100_000, to: 1_300_000_000 },
    },
  ],
};

/** The slots of a Tern P2. */
export const RANGE = { first: 0, count: 150 };

/** A plan of three channels in slots 1, 2 and 5: same both ways, shifted, listen only. */
export const three = plan([
  channel(1, 145_500_000, { name: 'Calling' }),
  channel(2, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500 }),
  channel(5, 162_400_000, { name: 'Weather', tx: null }),
]);

/** The plan after an edit that must succeed. */
export function run(p: Plan, edit: Edit): Plan {
  const result = applyEdit(p, edit);
  if (!result.ok) throw new Error(result.reason);
  return result.value;
}

/** A Tern P2 as it names itself on the link. */
export const IDENT = {
  model: 'TERN-P2 ',
  serial: 'LK204417',
  firmware: '1.07',
  region: 3,
  imageBytes: 8192,
  halfWritten: false,
  battery: null,
  module: 0,
};

/** The edit that places the plain channels of those numbers in the next free slots of 0 to 149. */
export function placing(...numbers: number[]): Edit {
  const channels = numbers.map((n) => {
    const { slot: _, list: _list, ...fields } = channel(n, 145_500_000 + n * 12_500);
    return fields;
  });
  return { name: 'place', channels, placement: 'next-free', at: 0, range: RANGE };
}

/** The edit that gives the channel of that number another name. */
export const renaming = (n: number, name: string): Edit => ({
  name: 'change',
  changes: [{ id: id(n), set: { name } }],
});

/** Records as JSON makes them: fast-check makes some without a prototype otherwise, which nothing in the application is. */
const record = <T>(model: { [K in keyof T]: fc.Arbitrary<T[K]> }): fc.Arbitrary<T> =>
  fc.record<T>(model, { noNullPrototype: true });

export const anySquelch: fc.Arbitrary<Squelch> = fc.oneof(
  record({
    kind: fc.constant('tone' as const),
    tone: fc.oneof(fc.constantFrom(...TONES), fc.integer({ min: 600, max: 2600 })),
  }),
  record({ kind: fc.constant('code' as const), code: fc.constantFrom(...CODES), inverted: fc.boolean() }),
);

export const anyAccess: fc.Arbitrary<Access> = fc.oneof(
  record({
    kind: fc.constant('analogue' as const),
    send: fc.option(anySquelch),
    expect: fc.option(anySquelch),
  }),
  record({
    kind: fc.constant('dmr' as const),
    colourCode: fc.integer({ min: 0, max: 15 }),
    timeSlot: fc.constantFrom(1 as const, 2 as const),
  }),
  record({ kind: fc.constant('nac' as const), nac: fc.integer({ min: 0, max: 0xfff }) }),
);

/** Any frequency that Veridon keeps, most of them where radios are. */
export const anyFrequency: fc.Arbitrary<number> = fc.oneof(
  fc.integer({ min: 13_600_000, max: 17_400_000 }).map((n) => n * 10),
  fc.integer({ min: 40_000_000, max: 48_000_000 }).map((n) => n * 10),
  fc.integer({ min: 11_800, max: 13_600 }).map((n) => n * 10_000),
  fc
    .integer({ min: 4720, max: 5479 })
    .chain((block) => fc.constantFrom(8_333, 16_667).map((offset) => block * 25_000 + offset)),
  fc.integer({ min: 830, max: 27_500_000_000 }).map((n) => n * 10),
);

const anyFields = record({
  name: fc.string({ maxLength: 32 }).map((name) => name.trim()),
  rx: fc.oneof(
    fc.integer({ min: 10_880, max: 13_920 }).map((n) => n * 12_500),
    anyFrequency,
  ),
  shift: fc.constantFrom(0, 0, -600_000, 7_600_000, 1_600_000, null),
  txFixed: fc.boolean(),
  access: anyAccess,
  mode: fc.constantFrom(...MODES),
  power: fc.integer({ min: 1, max: 100_000 }),
  scan: fc.boolean(),
  alwaysOn: fc.boolean(),
});

const listedSquelch: fc.Arbitrary<Squelch | null> = fc.oneof(
  fc.constant(null),
  fc.constantFrom(...TONES).map((tone): Squelch => ({ kind: 'tone', tone })),
  fc
    .tuple(fc.constantFrom(...CODES), fc.boolean())
    .map(([code, inverted]): Squelch => ({ kind: 'code', code, inverted })),
);

/** A channel as people have them: on a band of a handheld, on its steps, with the shift that is usual there. */
const usualFields = record({
  name: fc.constantFrom(
    'Calling',
    'Ullsmere Hill',
    'Ketterby Quay',
    'Norrast Ferries',
    'Harbour',
    'Førde “1”',
    '',
  ),
  rx: fc.oneof(
    fc.integer({ min: 11_552, max: 11_680 }).map((n) => n * 12_500),
    fc.integer({ min: 34_400, max: 35_200 }).map((n) => n * 12_500),
  ),
  shift: fc.constantFrom(0, 0, -600_000, 1_600_000, null),
  txFixed: fc.boolean(),
  access: record({ kind: fc.constant('analogue' as const), send: listedSquelch, expect: listedSquelch }),
  mode: fc.constantFrom('FM' as const, 'NFM' as const),
  power: fc.constantFrom(500, 1000, 4000, 5000),
  scan: fc.boolean(),
  alwaysOn: fc.boolean(),
});

export const zoneId = (n: number) => `zn_test${String(n).padStart(4, '0')}` as ZoneId;

/** Zones over the channels of a plan: some empty, some that share channels. */
const anyZonesOver = (channels: readonly Channel[]): fc.Arbitrary<Zone[]> =>
  fc
    .array(fc.tuple(fc.constantFrom('Weekend', 'Harbour', 'Ferry “1”'), fc.shuffledSubarray([...channels])), {
      maxLength: 4,
    })
    .map((zones) =>
      zones.map(([name, members], n) => ({ id: zoneId(n), name, members: members.map((one) => one.id) })),
    );

/** Plans of up to 40 channels, half of them with zones: three in four as people have them, the others with much that a radio cannot hold. */
export const anyPlan: fc.Arbitrary<Plan> = fc
  .uniqueArray(
    fc.tuple(
      fc.integer({ min: 0, max: 160 }),
      fc.oneof({ weight: 3, arbitrary: usualFields }, { weight: 1, arbitrary: anyFields }),
    ),
    { maxLength: 40, selector: ([slot]) => slot },
  )
  .map((rows) =>
    plan(
      rows
        .sort(([a], [b]) => a - b)
        .map(([slot, { shift, txFixed, ...fields }]) => {
          const shifted = shift === null ? null : fields.rx + shift;
          const tx = shifted !== null && !isFrequency(shifted) ? fields.rx : shifted;
          return channel(slot, fields.rx, {
            ...fields,
            tx,
            txFixed: txFixed && tx !== null && tx !== fields.rx,
          });
        }),
    ),
  )
  .chain((made) =>
    fc.oneof(
      fc.constant(made),
      anyZonesOver(made.channels).map((zones) => ({ ...made, zones })),
    ),
  );
