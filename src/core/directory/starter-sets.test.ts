import * as fc from '../property.test.kit';
import { channelFieldsSchema, makeId, onAirKey, type ChannelId, type NewChannel } from '../plan';
import { MODELS } from '../models';
import { kestrelC1 } from '../models/kestrel-c1';
import { ternP2 } from '../models/tern-p2';
import { OPEN, REGIONS } from '../radio';
import { anyPlan, channel, plan, run } from '../samples.test.kit';
import {
  channelsOfSet,
  fillBlocks,
  firstOfKind,
  heldOf,
  ownSet,
  roomFor,
  runsOf,
  starterSets,
  type Candidate,
} from '.';

let ids = 0;
const newId = () => {
  ids++;
  return makeId(
    'ch',
    Uint8Array.from({ length: 12 }, (_, n) => Math.floor(ids / 36 ** n) % 36),
  );
};

describe('starter sets', () => {
  test.each(REGIONS)('in %s each is a channel that a plan can hold, none twice', (region) => {
    const sets = starterSets(region);
    expect(sets.map(({ kind }) => kind)).toContain('calling');
    expect(new Set(sets.map(({ id }) => id)).size).toBe(sets.length);
    for (const set of sets) {
      expect(set.channels.filter((one) => !channelFieldsSchema.safeParse(one).success)).toEqual([]);
      expect(new Set(set.channels.map(onAirKey)).size).toBe(set.channels.length);
      expect(new Set(set.channels.map(({ name }) => name)).size).toBe(set.channels.length);
    }
  });

  test('weather, sea and air are listened to alone; weather never falls silent, so the scan passes it over', () => {
    for (const region of REGIONS)
      for (const set of starterSets(region).filter(({ kind }) =>
        ['weather', 'marine', 'air'].includes(kind),
      )) {
        expect(set.channels.every(({ tx }) => tx === null)).toBe(true);
        if (set.kind === 'weather') expect(set.channels.some(({ scan }) => scan)).toBe(false);
      }
  });

  test('at home a hotspot is on one frequency both ways, with little power, for radios that are digital', () => {
    const [home] = starterSets('orrin').filter(({ kind }) => kind === 'home');
    expect(home!.channels[0]).toMatchObject({
      ...{ name: 'Hotspot', rx: 438_025_000, tx: 438_025_000, mode: 'DMR', power: 500 },
      access: { kind: 'dmr', colourCode: 1, timeSlot: 2 },
    });
    expect(heldOf(home!, kestrelC1).held).toHaveLength(3);
    expect(heldOf(home!, ternP2)).toMatchObject({ held: [], reasons: [['has no DMR', 3]] });
  });

  test('channel 16 is 156.800 MHz, and of channel 1 the coast is heard, 4.6 MHz up (Appendix 18)', () => {
    const all = starterSets('orrin').find(({ id }) => id === 'marine-all')!;
    const rx = (name: string) => all.channels.find((one) => one.name === name)?.rx;
    expect([rx('Marine 16'), rx('Marine 01'), all.channels.length]).toEqual([156_800_000, 160_650_000, 57]);
  });

  test('446 MHz: sixteen channels from 446.00625 at 12.5 kHz, narrow, half a watt', () => {
    const [free] = starterSets('orrin').filter(({ kind }) => kind === 'licence-free');
    expect(free!.channels).toHaveLength(16);
    expect(free!.channels[0]).toMatchObject({ name: 'Free 01', rx: 446_006_250, mode: 'NFM', power: 500 });
    expect(free!.channels.at(-1)!.rx).toBe(446_193_750);
  });

  test('a set says what of it a radio can hold', () => {
    const [air] = starterSets('orrin').filter(({ kind }) => kind === 'air');
    expect(heldOf(air!, ternP2)).toMatchObject({ held: [], reasons: [['has no AM', 3]] });
    for (const model of MODELS)
      for (const set of starterSets('itu1')) {
        const { held, reasons } = heldOf(set, model);
        expect(held.length + reasons.reduce((sum, [, n]) => sum + n, 0)).toBe(set.channels.length);
      }
  });

  test('a set of one’s own keeps of its channels where they came from', () => {
    const source = { directory: 'relay-register', entry: 'RR-1', service: 'amateur' };
    const set = ownSet('own-1', 'Ours', [channel(1, 145_600_000, { source }), channel(2, 145_500_000)]);
    expect(channelsOfSet(set, newId).map((one) => one.source)).toEqual([
      source,
      { directory: 'starter-set', entry: 'own-1 2', service: 'amateur' },
    ]);
  });
});

const fresh = (rx: number, name: string): NewChannel => {
  const { list: _, slot: _slot, ...fields } = channel(0, rx, { name });
  return { ...fields, id: newId() as ChannelId };
};
const many = (n: number, from: number, name: string) =>
  Array.from({ length: n }, (_, at) => fresh(from + at * 12_500, `${name} ${at}`));
const LISTS = [{ list: 0, range: { first: 0, count: 20 } }];

describe('blocks', () => {
  test('each stands where it begins; what does not fit between goes behind, until the radio is full', () => {
    const { blocks, placing } = fillBlocks(
      plan([channel(11, 145_500_000)]),
      [
        { name: 'Calling', channels: many(3, 144_600_000, 'C'), from: 0 },
        { name: 'Weather', channels: many(5, 162_400_000, 'W'), from: 10 },
        { name: 'Hills', channels: many(4, 145_600_000, 'H'), from: 14 },
        { name: 'Free', channels: many(12, 446_006_250, 'F'), from: null },
      ],
      LISTS,
    );
    // Slot 11 is taken, so weather has 10, 12, 13 of its own and two go behind the hills.
    expect(blocks.map(({ slots }) => runsOf(slots))).toEqual([
      '0–2',
      '3–4, 10, 12–13',
      '14–17',
      '5–9, 18–19',
    ]);
    expect(blocks.map(({ over }) => over.length)).toEqual([0, 0, 0, 5]);
    expect(placing).toMatchObject({ placed: 19, over: 5 });
  });

  test('what the plan has, and what an earlier block has, is not placed again', () => {
    const calling = fresh(145_500_000, 'Calling');
    const { blocks } = fillBlocks(
      plan([channel(3, 145_500_000)]),
      [
        { name: 'One', channels: [calling, fresh(145_525_000, 'Other')], from: 0 },
        { name: 'Two', channels: [fresh(145_525_000, 'Other')], from: null },
      ],
      LISTS,
    );
    expect(blocks.map(({ known, slots }) => ({ known, slots }))).toEqual([
      { known: 1, slots: [0] },
      { known: 1, slots: [] },
    ]);
  });

  test('nothing is lost: every channel is known, in a slot that was free, or left over', () => {
    const reached = fc.tally();
    const block = fc.record({
      name: fc.constant('Block'),
      n: fc.nat({ max: 12 }),
      base: fc.integer({ min: 11_700, max: 11_730 }),
      from: fc.option(fc.nat({ max: 180 })),
    });
    fc.assert(
      fc.property(
        anyPlan,
        fc.array(block, { maxLength: 5 }),
        fc.integer({ min: 1, max: 180 }),
        (before, asked, count) => {
          const blocks = asked.map(({ name, n, base, from }) => ({
            name,
            from,
            channels: many(n, base * 12_500, 'N'),
          }));
          const lists = [{ list: 0, range: { first: 0, count } }];
          const { blocks: filled, placing } = fillBlocks(before, blocks, lists);
          filled.forEach(({ known, slots, over }, at) =>
            expect(known + slots.length + over.length).toBe(blocks[at]!.channels.length),
          );
          const slots = filled.flatMap((one) => one.slots);
          expect(new Set(slots).size).toBe(slots.length);
          for (const slot of slots) {
            expect(slot).toBeLessThan(count);
            expect(before.channels.some((one) => one.slot === slot)).toBe(false);
          }
          const over = filled.reduce((sum, one) => sum + one.over.length, 0);
          // Left over only where no slot is free any more.
          if (over > 0) {
            const used = before.channels.filter((one) => one.slot < count).length;
            expect(used + slots.length).toBe(count);
          }
          if (placing) {
            const after = run(before, placing.edit);
            expect(after.channels.length).toBe(before.channels.length + slots.length);
            expect(after.leftOver.length).toBe(before.leftOver.length + over);
          }
          reached.count('over', over > 0);
          reached.count('placed', slots.length > 5);
        },
      ),
      { numRuns: 300 },
    );
    reached.expectShare('over', 0.1);
    reached.expectShare('placed', 0.4);
  });
});

test('room is made by what is off the air, was never heard, or lies farthest; never by what somebody made by hand', () => {
  const source = (entry: string, lat: number) => ({
    ...{ directory: 'relay-register', entry, service: 'amateur' },
    ...{ lat, lon: -30 },
  });
  const p = plan([
    channel(1, 145_500_000),
    channel(2, 145_600_000, { source: source('near', 52.1) }),
    channel(3, 145_625_000, { source: source('far', 55) }),
    channel(4, 145_650_000, { source: source('middle', 53) }),
  ]);
  const heard = new Map([
    [p.channels[2]!.id, { channel: p.channels[2]!.id, times: 3, last: '2026-01-01', weeks: [] }],
  ]);
  const context = { from: { lat: 52, lon: -30 }, heard, offAir: new Set(['relay-register middle']) };
  const slots = (n: number, way: Parameters<typeof roomFor>[2]) =>
    roomFor(p, n, way, context).map(({ slot }) => slot);
  expect(slots(9, 'farthest')).toEqual([3, 4, 2]);
  expect(slots(1, 'farthest')).toEqual([3]);
  expect(slots(9, 'off the air')).toEqual([4]);
  expect(slots(9, 'never heard')).toEqual([4, 2]);
});

test('the nearest repeaters are those on the air that the radio can use and the plan has not, of doubles one', () => {
  const found = (ref: string, more: object = {}, candidate: object = {}) =>
    ({
      entry: {
        ...{
          ref,
          call: 'Q7UL',
          site: ref,
          island: '',
          service: 'amateur',
          output: 145_600_000,
          input: 145_000_000,
        },
        ...{ access: OPEN, mode: 'FM', lat: 52, lon: -30, height: 1, onAir: true, constant: false },
        ...{ encrypted: false, updated: '' },
        ...more,
      },
      ...{ source: 's', asked: '', also: [], distance: 1, along: null, bearing: 0, wind: 'N' },
      ...{ unfit: null, present: null },
      ...candidate,
    }) as Candidate;
  const shown = [
    found('unfit', { output: 145_612_500 }, { unfit: 'has no DMR' }),
    found('first'),
    found('same again'),
    found('off', { output: 145_625_000, onAir: false }),
    found('secret', { output: 145_637_500, encrypted: true }),
    found('known', { output: 145_650_000 }, { present: { slot: 1, near: false } }),
    found('near', { output: 145_662_500 }, { present: { slot: 1, near: true } }),
    found('weather', { output: 162_400_000, input: null, service: 'weather' }),
    found('beacon', { output: 144_400_000, input: null }),
    found('last', { output: 145_675_000 }),
  ];
  const refs = (kind: 'repeaters' | 'services', n: number) =>
    firstOfKind(shown, kind, n).map(({ entry }) => entry.ref);
  expect(refs('repeaters', 9)).toEqual(['first', 'near', 'last']);
  expect(refs('repeaters', 2)).toEqual(['first', 'near']);
  expect(refs('services', 9)).toEqual(['weather']);
});
