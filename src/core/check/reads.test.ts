import { anyDigitalPlan, anyRemovalOn, groupId, scanId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import { applyEdit, OWN_KINDS, recordsOf, type Edit, type Plan } from '../plan';
import * as fc from '../property.test.kit';
import { channel, plan, run } from '../samples.test.kit';
import { check, mendsOf } from '.';
import { scanListEmpty } from './rules/scan-list-empty';
import { talkgroupUnused } from './rules/talkgroup-unused';

const own: Plan = {
  ...plan([channel(1, 433_500_000)]),
  modelId: 'osprey-d7',
  talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' }],
  scanLists: [
    {
      ...{ id: scanId(1), name: 'Round', members: [], first: null, second: null },
      ...{ answers: 'heard', startsItself: false },
    },
  ],
};

test('a rule is asked again when something changed that it reads, and only then', () => {
  const asked = [scanListEmpty, talkgroupUnused].map((rule) => jest.spyOn(rule, 'findAll'));
  const times = () => asked.map((spy) => spy.mock.calls.length);
  const first = check(own, ospreyD7);
  expect(times()).toEqual([1, 1]);
  expect(check({ ...own }, ospreyD7)).toEqual(first);
  expect(times()).toEqual([1, 1]);
  const renamed = run(own, {
    name: 'change',
    kind: 'talkgroup',
    changes: [{ id: groupId(1), set: { name: 'Boats' } }],
  });
  const then = check(renamed, ospreyD7);
  // Lists alone are read for empty ones.
  expect(times()).toEqual([1, 2]);
  const [before, after] = [first, then].map((all) => all.find(({ rule }) => rule === 'scan-list-empty'));
  expect(after).toBe(before);
  expect(then.find(({ rule }) => rule === 'talkgroup-unused')?.text).toContain('Boats');
  for (const spy of asked) spy.mockRestore();
});

test('the fix of a finding that stood is made of the plan of the day', () => {
  const finding = check(own, ospreyD7).find(({ rule }) => rule === 'scan-list-empty')!;
  const later = run(own, { name: 'describe', set: { name: 'Another' } });
  expect(check(later, ospreyD7)).toContain(finding);
  const [fix] = mendsOf(finding, later, ospreyD7);
  expect(run(later, fix!.edit)).toMatchObject({ name: 'Another', scanLists: [] });
});

test('what is said after any edits is what is said of a plan that nobody has looked at before', () => {
  let findings = 0;
  for (const model of [kestrelC1, ospreyD7])
    fc.assert(
      fc.property(
        anyDigitalPlan(model.id).chain((from) =>
          fc.record({
            from: fc.constant(from),
            removal: anyRemovalOn(from),
            renames: fc.array(fc.tuple(fc.constantFrom(...OWN_KINDS), fc.nat()), { maxLength: 5 }),
          }),
        ),
        ({ from, removal, renames }) => {
          let now = from;
          check(now, model);
          const edits = renames.flatMap(([kind, n]): Edit[] => {
            const records = recordsOf(now, kind) as readonly { id: string }[];
            const record = records[n % records.length];
            const set = { name: `Name ${n % 3}` };
            return record ? [{ name: 'change', kind, changes: [{ id: record.id, set }] } as Edit] : [];
          });
          for (const edit of [...edits, removal]) {
            const result = applyEdit(now, edit);
            if (!result.ok) continue;
            now = result.value;
            const said = check(now, model);
            expect(said).toEqual(check(structuredClone(now), model));
            findings += said.length;
          }
        },
      ),
      { numRuns: 60 },
    );
  fc.expectReached('findings', findings, 200);
});
