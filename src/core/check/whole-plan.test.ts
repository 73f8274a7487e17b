import { digital, groupId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ternP2 } from '../models/tern-p2';
import { NOT_STATED } from '../radio';
import { channel, plan, run } from '../samples.test.kit';
import { fit } from '../fit';
import { check, contentToWrite } from '.';
import { wiredIn } from './wired.test.kit';

/** What is said of a plan as a whole, above all else. */

const said = (of: ReturnType<typeof plan>, model = ternP2) => wiredIn(of, model).map(({ rule }) => rule);

test('a grade that is not stated is said first, once, and one press states it', () => {
  const p = plan([channel(1, 145_500_000), channel(2, 433_500_000)], { grade: NOT_STATED });
  const [first, ...others] = wiredIn(p, ternP2);
  expect(first).toMatchObject({ rule: 'grade-not-stated', severity: 'caution', kind: 'plan', id: p.id });
  expect(others).toEqual([]);
  expect(first!.mends.map(({ label }) => label)).toEqual(['None', 'Entry', 'Full']);
  const stated = first!.mends.map(({ edit }) => run(p, edit));
  expect(stated.map(({ owner }) => owner)).toEqual(
    ['none', 'entry', 'full'].map((grade) => ({ ...p.owner, grade })),
  );
  for (const one of stated) expect(said(one)).toEqual([]);
  // None is a grade: of it the guard speaks, channel by channel.
  const outside = (of: typeof p) => check(of, ternP2).filter(({ rule }) => rule === 'outside-licence').length;
  expect([outside(p), ...stated.map(outside)]).toEqual([0, 2, 0, 0]);
});

test('who only listens needs no grade', () =>
  expect(said(plan([channel(1, 145_500_000, { tx: null })], { grade: NOT_STATED }))).toEqual([]));

test('what no grade may use is outside the licence of any', () => {
  // 146 to 156 MHz is in no table of the Orrin Isles.
  const p = plan([channel(1, 147_000_000)], { grade: NOT_STATED });
  expect(check(p, ternP2).map(({ rule }) => rule)).toContain('outside-licence');
});

test('the own ID of a digital radio is missed once, not for each channel', () => {
  const p = {
    ...plan([1, 2, 3].map((slot) => digital(slot, { talkgroup: groupId(1) }))),
    modelId: 'kestrel-c1',
    talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
  };
  const missing = (of: typeof p) => said(of, kestrelC1).filter((rule) => rule === 'digital-without-own-id');
  expect(missing(p)).toHaveLength(1);
  expect(missing({ ...p, settings: { 'kestrel-c1': { radioId: 1_160_073 } } })).toEqual([]);
  // Nobody sees who calls where nobody calls, and analogue has no ID.
  expect(missing({ ...p, channels: p.channels.map((one) => ({ ...one, tx: null })) })).toEqual([]);
  expect(said(p)).not.toContain('digital-without-own-id');
});

test('a digital channel without a colour code is not written: none is guessed for it', () => {
  const p = {
    ...plan([digital(1), digital(2, { access: { kind: 'analogue', send: null, expect: null } })]),
    modelId: 'kestrel-c1',
  };
  expect(fit(p, kestrelC1).leftOut).toEqual([{ id: p.channels[1]!.id, obstacles: ['colour code'] }]);
  const content = contentToWrite(p, kestrelC1);
  expect(content.channels.map(({ slot }) => slot)).toEqual([1]);
  expect(content.heldBack).toEqual([
    {
      id: p.channels[1]!.id,
      reasons: [
        'Opens nothing and hears nothing: DMR needs a colour code and a time slot, and the channel has neither.',
      ],
    },
  ]);
});
