import { newSide } from '../organise';
import { gannetM8 } from '../models/gannet-m8';
import { ternP2 } from '../models/tern-p2';
import type { Plan, SetUpId, SetUpSide } from '../plan';
import { channel, id, plan, run, zoneId } from '../samples.test.kit';
import { wiredIn } from './wired.test.kit';

/** The traps of banks, quick set-ups and wiring: each said, each with a way out that takes it away. */

const right = (slot: number) => ({
  ...channel(slot, 433_500_000, { name: `Right ${slot}` }),
  id: id(100 + slot),
  list: 1,
});
const home = { ...channel(1, 145_375_000, { name: 'Home' }), id: id(200), list: 2 };
const side = (set: Partial<SetUpSide> = {}): SetUpSide => ({ ...newSide(), ...set });
const one = channel(1, 145_500_000, { name: 'Calling' });
const two = channel(2, 145_612_500, { name: 'Ullsmere', tx: 145_012_500 });
const base: Plan = {
  ...plan([one, two, right(1)]),
  zones: [{ id: zoneId(1), name: 'Day 1', members: [one.id, right(1).id] }],
};
const withSetUp = (sides: SetUpSide[], more: Partial<Plan> = {}): Plan => ({
  ...base,
  ...more,
  setUps: [{ id: 'qs_test0001' as SetUpId, name: 'Day 1', sides }],
});
const said = (p: Plan) => wiredIn(p, gannetM8).map(({ rule, severity, text }) => [rule, severity, text]);
const inSetUps = (p: Plan) => said(p).filter(([rule]) => rule!.startsWith('set-up'));

test('a set-up that does what it says is not spoken of', () =>
  expect(inSetUps(withSetUp([side({ zone: zoneId(1), start: one.id }), side()]))).toEqual([]));

test('begins in a bank that does not hold its channel', () => {
  const p = withSetUp([side({ zone: zoneId(1), start: two.id }), side()]);
  expect(inSetUps(p)).toEqual([
    [
      'set-up-start-outside',
      'caution',
      'Begins on “Ullsmere”, which the bank “Day 1” does not hold: one turn of the knob and it is gone.',
    ],
  ]);
  const [found] = wiredIn(p, gannetM8).filter(({ kind }) => kind === 'setUp');
  expect(found!.mends.map(({ label }) => label)).toEqual([
    'Begin on “Calling”',
    'Put “Ullsmere” into the bank “Day 1”',
  ]);
  for (const { edit } of found!.mends) expect(inSetUps(run(p, edit))).toEqual([]);
});

test('leaves a side on its dial, where its channels look lost', () => {
  const p = withSetUp([side(), side({ begins: 'dial' })]);
  expect(inSetUps(p)).toEqual([
    [
      'set-up-on-dial',
      'caution',
      'Leaves the right side on its dial: its channel will look lost. It is there: press the memory key.',
    ],
  ]);
  const [found] = wiredIn(p, gannetM8).filter(({ kind }) => kind === 'setUp');
  expect(inSetUps(run(p, found!.mends[0]!.edit))).toEqual([]);
  // a side that has no channels may well be left on its dial
  expect(inSetUps(withSetUp([side(), side({ begins: 'dial' })], { channels: [one, two] }))).toEqual([]);
});

test('calls a home channel that is not set', () => {
  expect(inSetUps(withSetUp([side({ begins: 'home' }), side()]))[0]![0]).toBe('set-up-without-home');
  expect(
    inSetUps(withSetUp([side({ begins: 'home' }), side()], { channels: [...base.channels, home] })),
  ).toEqual([]);
});

test('turns to a bank that has nothing on that side, begins on a channel of the other side', () => {
  const zones = [{ id: zoneId(1), name: 'Day 1', members: [one.id] }];
  expect(inSetUps(withSetUp([side(), side({ zone: zoneId(1) })], { zones }))[0]![0]).toBe(
    'set-up-without-channels',
  );
  expect(inSetUps(withSetUp([side({ start: right(1).id }), side()]))[0]![0]).toBe('set-up-start-elsewhere');
});

test('empty banks, and channels that are in none', () => {
  const zones = [...base.zones, { id: zoneId(2), name: 'Day 2', members: [] }];
  expect(said({ ...base, zones })).toEqual([
    ['empty-zone', 'hint', 'An empty bank: whoever turns to it hears nothing and sees no channel.'],
    [
      'outside-zones',
      'hint',
      'One channel is in no bank: “Ullsmere”. With banks switched on the knob passes it by.',
    ],
  ]);
  // a plan that uses no banks, and a radio that has none
  expect(said({ ...base, zones: [] })).toEqual([]);
  expect(wiredIn({ ...base, zones }, ternP2)).toEqual([]);
});
