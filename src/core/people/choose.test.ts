import * as fc from '../property.test.kit';
import { fit } from '../fit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import { danglingFault, inverseOf, type Plan, type TalkgroupId } from '../plan';
import { anyDigitalPlan, digital, groupId } from '../digital.test.kit';
import { plan, run } from '../samples.test.kit';
import {
  addCounts,
  choosePeople,
  coveredBy,
  curveOf,
  displayName,
  keyUpLog,
  packCounts,
  peopleFor,
  rank,
  roomForPeople,
  worstNames,
  type Person,
} from '.';

/** A log counted, people ranked and cut, named and chosen: a number and its name never part. */

const person = (id: number, more: Partial<Person> = {}): Person => ({
  ...{ id, call: `Q7A${id % 10}`, first: `First${id}`, last: 'Daskow', town: 'Ketterby', area: 'Ullsmere' },
  ...more,
});

describe('a log of key-ups', () => {
  const read = (...rows: string[]) => {
    const log = keyUpLog();
    for (const row of rows) log.row(row.split(','));
    return log.end();
  };
  test('is counted by day, talkgroup and number, whatever the order of its columns', () => {
    const counted = read(
      'seconds,ID,Talkgroup,Time',
      '4,1000001,100,2026-11-20T10:00:00Z',
      '9,1000001,100,2026-11-20 23:59:59',
      '2,1000002,101,2026-11-21',
      '',
    );
    expect(
      counted.ok &&
        [...counted.value.days].map(([day, groups]) => [day, [...groups].map(([g, c]) => [g, [...c]])]),
    ).toEqual([
      ['2026-11-20', [[100, [[1_000_001, 2]]]]],
      ['2026-11-21', [[101, [[1_000_002, 1]]]]],
    ]);
    expect(counted.ok && [counted.value.keyUps, counted.value.odd.count]).toEqual([3, 0]);
  });
  test('odd rows are told, counted and left out', () => {
    const counted = read(
      'time,talkgroup,id',
      '2026-11-20,100,1000001',
      '2026-02-30,100,1000001',
      'yesterday,100,1000001',
      '2026-11-20,0,1000001',
      '2026-11-20,100,16777215',
      '2026-11-20,100,Q7ABC',
      '2026-11-20',
    );
    expect(counted.ok && counted.value.odd).toEqual({
      count: 6,
      first: [
        { row: 2, reason: '“2026-02-30” is no day.' },
        { row: 3, reason: '“yesterday” is no day.' },
        { row: 4, reason: '“0” is no talkgroup.' },
        { row: 5, reason: '“16777215” is no number of anybody.' },
        { row: 6, reason: '“Q7ABC” is no number of anybody.' },
        { row: 7, reason: '“” is no talkgroup.' },
      ],
    });
  });
  test.each([
    ['nothing', [], 'Nothing came of the log.'],
    ['a page', ['<html>The board is away</html>'], 'it has no column for time, talkgroup, id'],
    ['headings alone', ['time,talkgroup,id'], 'the log has no rows'],
    ['odd rows alone', ['time,talkgroup,id', 'x,y,z'], 'None of the 1 rows of this log is a key-up.'],
  ])('%s is no log, and is said to be so', (_, rows, reason) => {
    const counted = read(...rows);
    expect(!counted.ok && counted.reason).toContain(reason);
  });
  test('counts are kept as bytes, and added up from there', () => {
    // 1000001 is 0x0f4241
    expect(Buffer.from(packCounts(new Map([[1_000_001, 258]]))).toString('hex')).toBe(
      '41420f00' + '02010000',
    );
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.tuple(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 9 })))),
        (days) => {
          const [all, expected] = [new Map<number, number>(), new Map<number, number>()];
          for (const day of days) {
            const counts = new Map(day);
            addCounts(all, packCounts(counts));
            for (const [id, n] of counts) expected.set(id, (expected.get(id) ?? 0) + n);
          }
          expect([...all].sort()).toEqual([...expected].sort());
        },
      ),
    );
  });
});

describe('ranking', () => {
  const counts = new Map([
    [1_000_001, 5],
    [1_000_002, 70],
    [100_100, 900],
    [1_000_003, 20],
    [1_000_004, 5],
  ]);
  const people = { isPerson: (id: number) => id >= 1_000_000, pinned: new Set([1_000_004, 1_000_009]) };

  test('pinned first, then by key-ups; what is no person is left out and counted', () => {
    expect(rank(counts, people)).toEqual({
      ranked: [
        { id: 1_000_004, keyUps: 5 },
        { id: 1_000_009, keyUps: 0 },
        { id: 1_000_002, keyUps: 70 },
        { id: 1_000_003, keyUps: 20 },
        { id: 1_000_001, keyUps: 5 },
      ],
      keyUps: 100,
      left: { numbers: 1, keyUps: 900 },
    });
  });
  test('the curve says how much so many people are', () => {
    const curve = curveOf(rank(counts, { ...people, pinned: new Set() }).ranked, 200);
    expect(curve).toEqual([
      { people: 0, keyUps: 0 },
      { people: 1, keyUps: 70 },
      { people: 2, keyUps: 90 },
      { people: 3, keyUps: 95 },
      { people: 4, keyUps: 100 },
    ]);
    expect([coveredBy(curve, 2), coveredBy(curve, 0), coveredBy(curve, 99)]).toEqual([90, 0, 100]);
    expect([peopleFor(curve, 0.9), peopleFor(curve, 0.991)]).toEqual([2, 4]);
  });
  test('of many it has no more points than are drawn, rises all along, and ends with all', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { minLength: 1, maxLength: 3000 }), (times) => {
        const ranked = times.map((keyUps, id) => ({ id, keyUps })).sort((a, b) => b.keyUps - a.keyUps);
        const curve = curveOf(ranked, 100);
        expect(curve.length).toBeLessThanOrEqual(102);
        expect(curve[curve.length - 1]).toEqual({
          people: times.length,
          keyUps: times.reduce((a, b) => a + b, 0),
        });
        for (let at = 1; at < curve.length; at++) {
          expect(curve[at]!.people).toBeGreaterThan(curve[at - 1]!.people);
          expect(curve[at]!.keyUps).toBeGreaterThanOrEqual(curve[at - 1]!.keyUps);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('choosing', () => {
  let last = 0;
  const makeId = () => `tg_chosen${String(++last).padStart(6, '0')}` as TalkgroupId;

  test('the room is the limit less talkgroups less the reserve; people apart have their own', () => {
    const p = {
      ...plan([]),
      talkgroups: [1, 2, 3].map((n) => ({
        id: groupId(n),
        name: `G${n}`,
        number: n,
        call: 'group' as const,
      })),
    };
    expect(roomForPeople(p, kestrelC1, 20)).toBe(800 - 3 - 20);
    expect(roomForPeople(p, kestrelC1, 900)).toBe(0);
    expect(roomForPeople(p, ospreyD7, 20)).toBe(400_000);
  });
  test('a name by template; with the call sign or the number where nothing comes of it', () => {
    expect(displayName(person(1_000_001), '{call} {first}')).toMatchObject({ value: 'Q7A1 First1000001' });
    expect(displayName(person(1_000_001, { first: '' }), '{first}')).toMatchObject({ value: 'Q7A1' });
    expect(displayName(person(1_000_001, { first: '', call: '' }), '{first}')).toMatchObject({
      value: '1000001',
    });
    expect(displayName(person(1), '{nobody}').ok).toBe(false);
  });
  test('what loses most is shown first', () => {
    const people = [
      person(1, { first: 'Ada' }),
      person(2, { first: 'Marrickenfeldower' }),
      person(3, { first: 'Torrinwellow' }),
    ];
    expect(
      worstNames(people, '{call} {first}', plan([]), kestrelC1, 5).map(({ id, wanted }) => [id, wanted]),
    ).toEqual([
      [2, 'Q7A2 Marrickenfeldower'],
      [3, 'Q7A3 Torrinwellow'],
    ]);
  });

  test('whoever is chosen, and chosen anew: each number has its own name, there is room, and it can be taken back', () => {
    const reached = fc.tally();
    const anyPeople = fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { maxLength: 25 });
    fc.assert(
      fc.property(
        anyDigitalPlan('kestrel-c1'),
        anyPeople,
        anyPeople,
        fc.integer({ min: 0, max: 20 }),
        (p, one, two, room) => {
          let now: Plan = p;
          for (const ids of [one, two]) {
            const people = ids.map((id) => person(id));
            const before = now;
            const chosen = choosePeople(before, people, '{first} of {id}', { room, makeId });
            if (!chosen.ok) {
              expect(chosen.reason).toContain('no room');
              return;
            }
            if (chosen.value.edit) now = run(before, chosen.value.edit);
            expect(danglingFault(now)).toBeNull();
            const contacts = now.talkgroups.filter(({ call }) => call === 'private');
            const named = new Set([
              ...now.channels.map(({ talkgroup }) => talkgroup),
              ...now.receiveLists.flatMap(({ members }) => members),
            ]);
            for (const { id, number, name } of contacts)
              if (ids.includes(number)) {
                // one of two with the same number may be named by a channel, and stays as it is
                if (!named.has(id)) expect(name).toBe(`First${number} of ${number}`);
              } else expect(named.has(id)).toBe(true);
            const fresh = contacts.filter(({ id }) => !named.has(id)).length;
            expect(fresh).toBeLessThanOrEqual(room);
            expect(chosen.value.over).toBeGreaterThanOrEqual(0);
            expect(run(now, inverseOf(before, now))).toEqual(before);
            reached.count('added', chosen.value.added > 0);
            reached.count('removed', chosen.value.removed > 0);
            reached.count('without room', chosen.value.over > 0);
          }
        },
      ),
      { numRuns: 200 },
    );
    for (const what of ['added', 'removed', 'without room']) reached.expectShare(what, 0.1);
  });

  test('in the radio they are contacts with their numbers, behind the talkgroups', () => {
    const p = {
      ...plan([digital(1, { talkgroup: groupId(1) })]),
      modelId: 'kestrel-c1',
      talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
    };
    const chosen = choosePeople(p, [person(1_000_002), person(1_000_001)], '{call} {first}', {
      room: 10,
      makeId,
    });
    if (!chosen.ok || !chosen.value.edit) throw new Error('nobody was chosen');
    expect(
      fit(run(p, chosen.value.edit), kestrelC1).talkgroups.map(({ number, address, call }) => [
        number,
        address,
        call,
      ]),
    ).toEqual([
      [1, 100, 'group'],
      [2, 1_000_002, 'private'],
      [3, 1_000_001, 'private'],
    ]);
  });
});
