import * as fc from '../property.test.kit';
import { digital, groupId, receiveId } from '../digital.test.kit';
import { channel, plan } from '../samples.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import type { Model } from '../models';
import type { Plan } from '../plan';
import { fit } from '.';

/** Where talkgroups and people share a limit: what falls out, and that it is said. */

/** A Kestrel with room for so many talkgroups and people. */
const withRoom = (count: number): Model => ({
  ...kestrelC1,
  digital: { ...kestrelC1.digital!, talkgroups: { ...kestrelC1.digital!.talkgroups, count } },
});

const group = (n: number, call: 'group' | 'private' = 'group') => ({
  ...{ id: groupId(n), name: `${call === 'private' ? 'Person' : 'Group'} ${n}`, number: 100 + n, call },
});

test('people fall out first, then what nothing refers to, then what lists alone have', () => {
  const p: Plan = {
    ...plan([digital(1, { talkgroup: groupId(6) }), digital(2, { talkgroup: groupId(5) })]),
    modelId: 'kestrel-c1',
    talkgroups: [group(1, 'private'), group(2), group(3, 'private'), group(4), group(5), group(6)],
    receiveLists: [{ id: receiveId(1), name: 'All', members: [groupId(4)] }],
  };
  const kept = (count: number) => fit(p, withRoom(count)).talkgroups.map(({ address }) => address - 100);
  // The order stays that of the plan.
  expect(kept(6)).toEqual([1, 2, 3, 4, 5, 6]);
  expect(kept(5)).toEqual([1, 2, 4, 5, 6]);
  expect(kept(4)).toEqual([2, 4, 5, 6]);
  expect(kept(3)).toEqual([4, 5, 6]);
  expect(kept(2)).toEqual([5, 6]);
  // There is no room for both that are called: the channel says so.
  const tight = fit(p, withRoom(1));
  expect(tight.talkgroups.map(({ name }) => name)).toEqual(['Group 5']);
  expect(tight.changes.map(({ id, text }) => [id, text])).toContainEqual([
    p.channels[0]!.id,
    'Calls no talkgroup',
  ]);
  expect(tight.besides.map(({ id, text, because }) => [id, text, because])).toContainEqual([
    groupId(1),
    'Left out',
    'This radio has room for 1 talkgroups and people',
  ]);
});

test('whatever a plan has: nothing falls out that matters more than something that stays, and each is named', () => {
  const reached = fc.tally();
  const anyPlan = fc
    .record({
      people: fc.array(fc.boolean(), { minLength: 1, maxLength: 14 }),
      called: fc.array(fc.nat(13), { maxLength: 6 }),
      listed: fc.uniqueArray(fc.nat(13), { maxLength: 6 }),
      count: fc.integer({ min: 1, max: 14 }),
    })
    .map(({ people, called, listed, count }) => {
      const talkgroups = people.map((person, at) => group(at + 1, person ? 'private' : 'group'));
      const idAt = (at: number) => talkgroups[at % talkgroups.length]!.id;
      return {
        count,
        made: {
          // A channel in another mode calls nobody, whatever it refers to.
          ...plan([
            ...called.map((at, n) => digital(n + 1, { talkgroup: idAt(at) })),
            channel(20, 433_500_000, { talkgroup: idAt(0) }),
          ]),
          modelId: 'kestrel-c1',
          talkgroups,
          receiveLists: [{ id: receiveId(1), name: 'All', members: [...new Set(listed.map(idAt))] }],
        } satisfies Plan,
      };
    });
  fc.assert(
    fc.property(anyPlan, ({ count, made }) => {
      const fitted = fit(made, withRoom(count));
      const kept = new Set(fitted.talkgroups.map(({ address }) => address - 100));
      expect(kept.size).toBe(Math.min(count, made.talkgroups.length));
      expect(fitted.talkgroups.map(({ number }) => number)).toEqual([...kept].map((_, at) => at + 1));
      const out = made.talkgroups.filter(({ number }) => !kept.has(number - 100));
      const calls = (id: string) =>
        made.channels.some(({ mode, talkgroup }) => mode === 'DMR' && talkgroup === id);
      const inList = (id: string) => made.receiveLists[0]!.members.some((member) => member === id);
      for (const gone of out)
        for (const stays of made.talkgroups) {
          if (!kept.has(stays.number - 100)) continue;
          if (calls(gone.id)) expect(calls(stays.id)).toBe(true);
          else if (inList(gone.id)) expect(calls(stays.id) || inList(stays.id)).toBe(true);
          else if (gone.call === 'group')
            expect(calls(stays.id) || inList(stays.id) || stays.call === 'group').toBe(true);
        }
      const named = fitted.besides.filter(({ kind, text }) => kind === 'talkgroup' && text === 'Left out');
      expect(named.map(({ id }) => id)).toEqual(out.map(({ id }) => id));
      reached.count('some fall out', out.length > 0);
      reached.count(
        'one that is called stays behind people',
        out.some(({ call }) => call === 'private'),
      );
    }),
    { numRuns: 300 },
  );
  reached.expectTimes('some fall out', 60);
  reached.expectTimes('one that is called stays behind people', 30);
});
