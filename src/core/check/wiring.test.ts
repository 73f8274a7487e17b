import { digital, groupId, receiveId, scanId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import type { Channel, Plan, ScanList, Talkgroup } from '../plan';
import { id, plan, run } from '../samples.test.kit';
import { check, groupFindings, mendTogether, RULES, WIRED } from '.';
import { wiredIn } from './wired.test.kit';

/** How channels, talkgroups and lists are wired: a plan in which all is well, and one thing wrong in it for each rule. */

const isles: Talkgroup = { id: groupId(1), name: 'Isles', number: 100, call: 'group' };
const round: ScanList = {
  ...{ id: scanId(1), name: 'Round', members: [id(1), id(2)] },
  ...{ first: null, second: null, answers: 'heard', startsItself: false },
};
const wired = (slot: number, fields: Partial<Channel> = {}) =>
  digital(slot, {
    ...{ talkgroup: groupId(1), receiveList: receiveId(1), scanList: scanId(1) },
    ...fields,
  });
const sound: Plan = {
  ...plan([wired(1), wired(2)]),
  modelId: 'kestrel-c1',
  settings: { 'kestrel-c1': { radioId: 1_160_073 } },
  talkgroups: [isles],
  receiveLists: [{ id: receiveId(1), name: 'All', members: [groupId(1)] }],
  scanLists: [round],
};

test('where all is well nothing is said of the wiring', () => expect(wiredIn(sound, kestrelC1)).toEqual([]));

/** By rule: what is otherwise, of which record it is said and how, and the labels of its mends. */
const CASES: Record<string, [Partial<Plan>, string, string, string[]]> = {
  'too-many': [
    {
      scanLists: Array.from({ length: 65 }, (_, n) => ({ ...round, id: scanId(n + 1), name: `Round ${n}` })),
    },
    `scanList ${scanId(65)}`,
    'caution: 65 scan lists, and the Kestrel C1 has room for 64: 1 stay out.',
    [],
  ],
  'scan-list-empty': [
    { scanLists: [{ ...round, members: [] }] },
    `scanList ${scanId(1)}`,
    'caution: “Round” has no channel: its scan hears nothing.',
    ['Remove the list'],
  ],
  'scan-list-unused': [
    { scanLists: [round, { ...round, id: scanId(2), name: 'Spare', members: [id(1)] }] },
    `scanList ${scanId(2)}`,
    'caution: Nobody scans “Spare”: no channel has it, so that its channel is never looked at.',
    ['Give it to its own channels', 'Remove the list'],
  ],
  'scan-never-goes-on': [
    { channels: [wired(1), wired(2, { alwaysOn: true })] },
    `scanList ${scanId(1)}`,
    'caution: The scan of “Round” stops on “Digital 2” and stays: that station never falls silent.',
    ['Take “Digital 2” out of the list'],
  ],
  'scan-without-first': [
    { scanLists: [{ ...round, answers: 'first' }] },
    `scanList ${scanId(1)}`,
    'caution: “Round” answers on its first priority, and has none: a press of the key goes nowhere that is sure.',
    ['Answer where it stopped'],
  ],
  'silent-scan': [
    { channels: [wired(1), wired(2, { scanList: null })] },
    `channel ${id(2)}`,
    'caution: A scan begun on “Digital 2” is silent: the channel has no scan list, though “Round” has the channel.',
    ['Give it “Round”'],
  ],
  'group-not-in-list': [
    {
      talkgroups: [isles, { ...isles, id: groupId(2), name: 'Boats', number: 200 }],
      channels: [wired(1), wired(2, { talkgroup: groupId(2) })],
    },
    `channel ${id(2)}`,
    'hint: “Digital 2” calls “Boats”, which its receive list “All” does not have: what comes back may not be heard.',
    ['Put “Boats” into “All”'],
  ],
  'receive-list-unused': [
    { receiveLists: [...sound.receiveLists, { id: receiveId(2), name: 'Spare', members: [groupId(1)] }] },
    `receiveList ${receiveId(2)}`,
    'hint: No channel has the receive list “Spare”: it changes nothing.',
    ['Remove the list'],
  ],
  'talkgroup-doubled': [
    { talkgroups: [isles, { ...isles, id: groupId(2), name: 'Isles again' }] },
    `talkgroup ${groupId(2)}`,
    'caution: “Isles again” and “Isles” are one: both have the number 100.',
    ['Make one of them'],
  ],
  'talkgroup-unused': [
    { talkgroups: [isles, { ...isles, id: groupId(2), name: 'Boats', number: 200 }] },
    `talkgroup ${groupId(2)}`,
    'hint: No channel calls “Boats” and no receive list has it: it takes room and does nothing.',
    ['Remove it'],
  ],
  'talkgroup-encrypted': [
    { talkgroups: [{ ...isles, encrypted: true }] },
    `talkgroup ${groupId(1)}`,
    'hint: “Isles” is encrypted: a radio without its key hears noise there.',
    [],
  ],
  'alike-in-name': [
    {
      scanLists: [round, { ...round, id: scanId(2), name: 'round ' }],
      channels: [wired(1), wired(2, { scanList: scanId(2) })],
    },
    `scanList ${scanId(2)}`,
    'caution: Two scan lists are called “round ”: on the radio nobody can tell which is which.',
    ['Call this one “round 2”'],
  ],
};

test.each(Object.entries(CASES))('%s', (rule, [other, of, sentence, labels]) => {
  const p = { ...sound, ...other };
  const [found, ...more] = wiredIn(p, kestrelC1).filter((one) => one.rule === rule);
  expect(more).toEqual([]);
  expect([`${found!.kind} ${found!.id}`, `${found!.severity}: ${found!.text}`]).toEqual([of, sentence]);
  expect(found!.mends.map(({ label }) => label)).toEqual(labels);
  for (const { edit } of found!.mends)
    expect(wiredIn(run(p, edit), kestrelC1).filter((one) => one.rule === rule)).toEqual([]);
});

test('each rule of records is shown by a case here, or among those of zones, set-ups, the whole plan and directories', () => {
  const elsewhere = [
    ...['grade-not-stated', 'digital-without-own-id', 'hex-mix-up', 'empty-zone', 'outside-zones'],
    ...['set-up-on-dial', 'set-up-without-home', 'set-up-without-channels'],
    ...['set-up-start-outside', 'set-up-start-elsewhere'],
  ];
  expect([...WIRED].sort()).toEqual([...Object.keys(CASES), ...elsewhere].sort());
});

test('what is said of a channel’s wiring stands among what is said of the channel, and many are mended at once', () => {
  const p = {
    ...sound,
    channels: [wired(1, { scanList: null }), wired(2, { scanList: null, rx: 10, tx: null })],
  };
  const found = check(p, kestrelC1);
  const ofSecond = found.flatMap((one) => (one.kind === 'channel' && one.id === id(2) ? one.rule : []));
  expect(ofSecond).toEqual(['out-of-range', 'silent-scan']);
  const lookedFor = Object.fromEntries(RULES.map(({ id: rule, looksFor }) => [rule, looksFor]));
  const group = groupFindings(found, lookedFor).find(({ key }) => key === 'caution silent-scan')!;
  expect(group.text).toBe('Channels of a scan list that have none.');
  const mended = run(p, mendTogether(group.findings, p, kestrelC1)!.edit);
  expect(mended.channels.map(({ scanList }) => scanList)).toEqual([scanId(1), scanId(1)]);
});

test('of one rule a hundred other records are told one by one, and the rest is counted', () => {
  const talkgroups = Array.from({ length: 250 }, (_, n) => ({
    ...{ ...isles, id: groupId(n + 1), name: `Group ${n}`, number: n + 1 },
  }));
  const p = { ...sound, modelId: 'osprey-d7', talkgroups };
  const unused = check(p, ospreyD7).filter(({ rule }) => rule === 'talkgroup-unused');
  // One of them is called.
  expect(unused).toHaveLength(101);
  expect(unused.at(-1)).toMatchObject({ text: '149 more are like that: mend some, and they come.' });
});

test('while somebody types elsewhere, what is said of a channel’s wiring stays the very same', () => {
  const p = { ...sound, channels: [wired(1), wired(2, { scanList: null })] };
  const before = check(p, kestrelC1).find(({ rule }) => rule === 'silent-scan');
  const typed = run(p, { name: 'change', changes: [{ id: id(1), set: { name: 'Typed' } }] });
  expect(check(typed, kestrelC1).find(({ rule }) => rule === 'silent-scan')).toBe(before);
});
