import * as fc from '../property.test.kit';
import { anyPlan, channel, id } from '../samples.test.kit';
import type { Severity } from '../check';
import { byChannel } from '../heard';
import { filterChannels, readWishes, type FactContext } from '.';

const RULES = { region: 'orrin' as const };
const severities = new Map<string, Severity[]>([
  [id(1), ['stop']],
  [id(3), ['hint', 'caution']],
]);
const context: FactContext = {
  rules: RULES,
  severities: (one) => severities.get(one.id) ?? [],
  inZone: (one) => one.id === id(2),
  heard: byChannel([
    { channel: id(1), times: 4, last: '2026-11-20T12:00:00.000Z', weeks: [] },
    { channel: id(12), times: 1, last: '2026-05-27T12:00:00.000Z', weeks: [] },
  ]),
  now: Date.parse('2026-11-27T12:00:00.000Z'),
};
const tone = { kind: 'tone' as const, tone: 885 };
const channels = [
  channel(1, 145_612_500, {
    name: 'Ullsmere Hill',
    tx: 145_012_500,
    access: { kind: 'analogue', send: tone, expect: null },
  }),
  channel(2, 438_650_000, {
    name: 'Perrin Cross',
    tx: 431_050_000,
    mode: 'DMR',
    access: { kind: 'dmr', colourCode: 3, timeSlot: 2 },
    scan: false,
  }),
  channel(3, 162_400_000, { name: 'Stop Weather', tx: null, note: 'from the harbour' }),
  channel(4, 145_500_000, { name: '', power: 500, tags: ['Regatta', 'North Coast'] }),
  channel(12, 433_512_500, {
    name: 'Hollin',
    tx: 433_600_000,
    txFixed: true,
    source: { directory: 'register', entry: 'a', service: 'amateur', call: 'Q7ABC', place: 'Hollin Bay' },
  }),
];
const slots = (typed: string) =>
  filterChannels(channels, readWishes(typed, RULES), context).map(({ slot }) => slot);

test.each([
  ['2 m', [1, 4]],
  ['heard', [1, 12]],
  ['never heard', [2, 3, 4]],
  ['not heard', [2, 3, 4]],
  // seven days ago to the moment, and 184 days (27 May to 27 November)
  ['heard<30d', [1]],
  ['heard<=7d', [1]],
  ['heard<7d', []],
  ['heard<=1w', [1]],
  ['heard>183d', [12]],
  ['heard>184d', []],
  ['heard<1y', [1, 12]],
  ['heard<169h', [1]],
  ['-heard<30d', [2, 3, 4, 12]],
  ['heard<6m heard>7d', []],
  ['heard>6m', [12]],
  ['2m', [1, 4]],
  ['70cm', [2, 12]],
  ['-2m', [2, 3, 12]],
  ['not 2 m', [2, 3, 12]],
  ['listen', [3]],
  ['listen only', [3]],
  ['simplex', [4]],
  ['shifted', [1, 2, 12]],
  ['split', [12]],
  ['no tone', [3, 4, 12]],
  ['tone', [1]],
  ['dmr', [2]],
  ['digital', [2]],
  ['analogue 70cm', [12]],
  ['skipped', [2]],
  ['no scan', [2]],
  ['scanned 2m', [1, 4]],
  ['stop', [1]],
  ['stops', [1]],
  ['caution', [3]],
  ['found', [1, 3]],
  ['-found', [2, 4, 12]],
  ['"stop"', [3]],
  ['-"stop"', [1, 2, 4, 12]],
  ['no name', [4]],
  ['noted', [3]],
  ['by hand', [1, 2, 3, 4]],
  ['from a directory', [12]],
  ['no zone', [1, 3, 4, 12]],
  ['#regatta', [4]],
  ['-#regatta', [1, 2, 3, 12]],
  ['#northcoast', [4]],
  ['coast', [4]],
  ['power<1w', [4]],
  ['power>=4W', [1, 2, 12]],
  ['rx>145.6', [1, 2, 3, 12]],
  ['tx=145.0125', [1]],
  ['slot>4', [12]],
  ['hill', [1]],
  ['hill,70cm', []],
  ['perrin cross', [2]],
  ['"perrin cross"', [2]],
  ['cross perrin', [2]],
  ['"cross perrin"', []],
  ['cc3', [2]],
  ['q7abc', [12]],
  ['harbour', [3]],
  ['012', [1, 12]],
  ['', [1, 2, 3, 4, 12]],
  ['   ', [1, 2, 3, 4, 12]],
  ['not', []],
  ['power>much', []],
])('“%s” finds %j', (typed, found) => expect(slots(typed)).toEqual(found));

test('what is typed says how it was read', () => {
  expect(readWishes('hill -dmr "2 m" 2 M', RULES).map(({ kind, not, text }) => [kind, not, text])).toEqual([
    ['words', false, 'hill'],
    ['fact', true, 'DMR'],
    ['words', false, '2 m'],
    ['fact', false, '2 m'],
  ]);
});

test('a wish and its opposite part all channels, whatever is asked', () => {
  const word = fc.oneof(
    fc.constantFrom('2m', 'dmr', 'listen', 'tone', 'found', 'power>1W', '#x', 'stat', 'split'),
    fc.string({ minLength: 1, maxLength: 5 }).filter((text) => /^[a-z]+$/.test(text) && text !== 'not'),
  );
  let some = 0;
  fc.assert(
    fc.property(anyPlan, word, (plan, typed) => {
      const of = (text: string) => filterChannels(plan.channels, readWishes(text, RULES), context);
      const [yes, no] = [of(typed), of(`-${typed}`)];
      if (yes.length > 0 && no.length > 0) some++;
      expect([...yes, ...no].map((one) => one.slot).sort((a, b) => a - b)).toEqual(
        plan.channels.map((one) => one.slot),
      );
    }),
    { numRuns: 300 },
  );
  fc.expectReached('some', some, 31);
});
