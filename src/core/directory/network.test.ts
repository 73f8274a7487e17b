import {
  danglingFault,
  inverseOf,
  type ChannelId,
  type Plan,
  type ReceiveListId,
  type TalkgroupId,
  type ZoneId,
} from '../plan';
import { wiredIn } from '../check/wired.test.kit';
import { fit } from '../fit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import { plan, run } from '../samples.test.kit';
import type { Entry, EntryGroup } from './entry';
import { networkOf, openGroups, type NetworkIds } from './network';

let last = 0;
const next = (prefix: string) => `${prefix}_made${String(++last).padStart(5, '0')}`;
const ids: NetworkIds = {
  channel: () => next('ch') as ChannelId,
  talkgroup: () => next('tg') as TalkgroupId,
  receiveList: () => next('rl') as ReceiveListId,
  zone: () => next('zn') as ZoneId,
};

const group = (slot: 1 | 2, number: number, name: string, encrypted = false): EntryGroup => ({
  ...{ slot, number, name },
  ...(encrypted && { encrypted }),
});
const NINE = [
  group(1, 100, 'Isles'),
  group(1, 101, 'East isles'),
  group(1, 102, 'West isles'),
  group(1, 150, 'On foot'),
  group(1, 416, 'Isles Rescue', true),
  group(2, 1046, 'Weather net'),
  group(2, 1200, 'Evening net'),
  group(2, 110, 'Ullsmere'),
  group(2, 1301, 'Hill'),
];
const repeater = (site: string, output: number, groups: EntryGroup[], colourCode = 1): Entry => ({
  ...{
    ref: site,
    call: 'Q7AAA',
    site,
    island: 'Ullsmere',
    service: 'amateur',
    output,
    input: output - 7_600_000,
  },
  access: { kind: 'dmr', colourCode, timeSlot: 1 },
  ...{ mode: 'DMR', lat: 52, lon: -30, height: 200, onAir: true, constant: false, encrypted: false },
  ...{ updated: '2026-10-01', network: 'Isles Link', groups },
});
const hill = repeater('Ullsmere Hill', 439_412_500, NINE);
const chosen = (entry: Entry, groups = entry.groups!) => ({ directory: 'relay-register', entry, groups });
const empty: Plan = { ...plan([]), modelId: 'osprey-d7' };
const made = (p: Plan, ...of: ReturnType<typeof chosen>[]) => {
  const result = networkOf(p, ospreyD7, of, '{group} {slot}', ids);
  if (!result.ok) throw new Error(result.reason);
  return result.value;
};

test('nine talkgroups become nine channels, two receive lists and a zone, in one edit', () => {
  const all = made(empty, chosen(hill));
  const after = run(empty, all.edit);
  expect(after.channels.map(({ name, access, slot }) => [slot, name, access])).toEqual([
    [1, 'Isles 1', { kind: 'dmr', colourCode: 1, timeSlot: 1 }],
    [2, 'East isles 1', { kind: 'dmr', colourCode: 1, timeSlot: 1 }],
    [3, 'West isles 1', { kind: 'dmr', colourCode: 1, timeSlot: 1 }],
    [4, 'On foot 1', { kind: 'dmr', colourCode: 1, timeSlot: 1 }],
    [5, 'Isles Rescue 1', { kind: 'dmr', colourCode: 1, timeSlot: 1 }],
    [6, 'Weather net 2', { kind: 'dmr', colourCode: 1, timeSlot: 2 }],
    [7, 'Evening net 2', { kind: 'dmr', colourCode: 1, timeSlot: 2 }],
    [8, 'Ullsmere 2', { kind: 'dmr', colourCode: 1, timeSlot: 2 }],
    [9, 'Hill 2', { kind: 'dmr', colourCode: 1, timeSlot: 2 }],
  ]);
  expect(after.receiveLists.map(({ name, members }) => [name, members.length])).toEqual([
    ['Isles Link TS1', 5],
    ['Isles Link TS2', 4],
  ]);
  expect(after.zones.map(({ name, members }) => [name, members.length])).toEqual([['Ullsmere Hill', 9]]);
  expect(danglingFault(after)).toBeNull();
  // what a receive list has, its channels call; whose ID it is to have nobody has said
  expect(wiredIn(after, ospreyD7).map(({ rule }) => rule)).toEqual([
    'digital-without-own-id',
    'talkgroup-encrypted',
  ]);
  expect(fit(after, ospreyD7).leftOut).toEqual([]);
  expect(run(after, inverseOf(empty, after))).toEqual(empty);
});

test('encrypted groups are left out unless they are asked for', () => {
  expect(openGroups(hill)).toHaveLength(8);
  expect(openGroups(hill, true)).toHaveLength(9);
});

test('several repeaters share talkgroups, and receive lists that are alike', () => {
  const head = repeater('Brannoch Head', 439_437_500, [...NINE.slice(0, 5), group(2, 120, 'Brannoch')], 3);
  const both = made(empty, chosen(hill), chosen(head));
  const after = run(empty, both.edit);
  expect([
    after.talkgroups.length,
    after.receiveLists.length,
    after.zones.length,
    after.channels.length,
  ]).toEqual([10, 3, 2, 15]);
  // one time slot of both carries the same: one list serves both
  const lists = new Set(
    after.channels
      .filter(({ access }) => access.kind === 'dmr' && access.timeSlot === 1)
      .map(({ receiveList }) => receiveList),
  );
  expect(lists.size).toBe(1);
  expect(
    after.channels.filter(({ access }) => access.kind === 'dmr' && access.colourCode === 3),
  ).toHaveLength(6);
});

test('done again it makes nothing that is there, and says so', () => {
  const after = run(empty, made(empty, chosen(hill, NINE.slice(0, 5))).edit);
  expect(networkOf(after, ospreyD7, [chosen(hill, NINE.slice(0, 5))], '{group}', ids)).toMatchObject({
    ok: false,
  });
  const more = made(after, chosen(hill));
  expect([more.channels.length, more.there, more.talkgroups.length, more.receiveLists.length]).toEqual([
    4, 5, 4, 1,
  ]);
  expect(more.shared).toEqual({ talkgroups: 5, receiveLists: 1 });
  const all = run(after, more.edit);
  expect(all.channels).toHaveLength(9);
  // the zone of the second time has all that the repeater carries
  expect(all.zones.map(({ members }) => members.length)).toEqual([5, 9]);
});

test('a template that knows no such field is refused, and of a full radio the rest waits left over', () => {
  expect(networkOf(empty, ospreyD7, [chosen(hill)], '{nobody}', ids)).toMatchObject({ ok: false });
  const small = { ...ospreyD7, slots: { first: 1, count: 4 } };
  const result = networkOf(empty, small, [chosen(hill)], '{group}', ids);
  if (!result.ok) throw new Error(result.reason);
  const after = run(empty, result.value.edit);
  expect([after.channels.length, after.leftOver.length, result.value.over]).toEqual([4, 5, 5]);
  expect(after.zones[0]!.members).toHaveLength(4);
});

test('a zone of sixteen places takes sixteen, and the rest goes to a second', () => {
  const many = repeater(
    'Tamsin Tower',
    439_450_000,
    Array.from({ length: 20 }, (_, n) => group(n < 10 ? 1 : 2, 200 + n, `Group ${n}`)),
  );
  const result = networkOf({ ...empty, modelId: 'kestrel-c1' }, kestrelC1, [chosen(many)], '{group}', ids);
  expect(result.ok && result.value.zones.map(({ name, members }) => [name, members.length])).toEqual([
    ['Tamsin Tower', 16],
    ['Tamsin Tower 2', 4],
  ]);
});
