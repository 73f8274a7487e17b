import { channel, plan } from '../../core/samples.test.kit';
import { heldAt, heldNewest, hold, holdEarlier, letGo, type Held } from './held';

const one = plan([channel(1, 145_500_000)]);
const MB = 1_000_000;
const at = (revision: number, bytes = 1000, of = one): Held => ({
  document: of,
  revision,
  undoHead: null,
  redoHead: null,
  bytes,
  inRows: true,
});
const other = { ...one, name: 'Other' };

test('the newest is held, and what was the newest before it as an earlier one', () => {
  hold('pl_held1', at(4));
  hold('pl_held1', at(5, 1000, other));
  expect(heldNewest('pl_held1')).toMatchObject({ revision: 5, document: { name: 'Other' } });
  expect([4, 5, 6].map((revision) => heldAt('pl_held1', revision))).toEqual([one, other, undefined]);
  // one that does not follow has been made by somebody else: what was held before need not lead to it
  hold('pl_held1', at(9));
  expect(heldAt('pl_held1', 5)).toBeUndefined();
  holdEarlier('pl_held1', 7, other);
  expect(heldAt('pl_held1', 7)).toBe(other);
  holdEarlier('pl_held1', 9, other);
  expect(heldAt('pl_held1', 9)).toBe(one);
  letGo('pl_held1');
  expect([heldNewest('pl_held1'), heldAt('pl_held1', 7)]).toEqual([undefined, undefined]);
});

test('40 MB are held over all plans; the one asked for last is let go last', () => {
  for (let n = 1; n <= 5; n++) hold(`pl_many${n}`, at(1, 7 * MB));
  heldNewest('pl_many1');
  hold('pl_many6', at(1, 7 * MB));
  // five of 7 MB are 35: of six the one that nobody asked for goes, and that is the second
  expect([1, 2, 3, 4, 5, 6].map((n) => heldNewest(`pl_many${n}`) !== undefined)).toEqual([
    true,
    false,
    true,
    true,
    true,
    true,
  ]);
  for (let n = 1; n <= 6; n++) letGo(`pl_many${n}`);
});

test('of one plan with very many revisions the oldest go', () => {
  // an earlier one with 1,000 channels is counted with 10 kB: 8 a channel and 2,000
  const large = { ...one, channels: Array.from({ length: 1000 }, (_, slot) => channel(slot, 145_500_000)) };
  for (let revision = 1; revision <= 5000; revision++) hold('pl_long', at(revision, MB, large));
  const there = Array.from({ length: 5000 }, (_, n) => heldAt('pl_long', n + 1) !== undefined);
  // 8 MB are 800 of 10 kB, beside the newest
  expect(there.indexOf(true)).toBe(5000 - 1 - 800);
  expect(there.filter(Boolean)).toHaveLength(801);
  letGo('pl_long');
});

test('earlier revisions never push out what somebody works on; those of the plan asked for longest ago go first', () => {
  const large = { ...one, channels: Array.from({ length: 1000 }, (_, slot) => channel(slot, 145_500_000)) };
  const ids = ['pl_side1', 'pl_side2', 'pl_side3'];
  const work = (id: string, from: number, to: number) => {
    for (let revision = from; revision <= to; revision++) hold(id, at(revision, 13 * MB, large));
  };
  const earlier = () =>
    ids.map((id) => Array.from({ length: 900 }, (_, n) => heldAt(id, n + 1)).filter(Boolean).length - 1);
  // 39 MB of newest ones; 800 earlier ones of 10 kB are held
  work(ids[0]!, 1, 301);
  work(ids[1]!, 1, 401);
  expect(earlier()).toEqual([300, 400, -1]);
  work(ids[2]!, 1, 301);
  expect(earlier()).toEqual([100, 400, 300]);
  work(ids[2]!, 302, 801);
  expect(earlier()).toEqual([0, 0, 800]);
  expect(ids.map((id) => heldNewest(id)?.revision)).toEqual([301, 401, 801]);
  for (const id of ids) letGo(id);
  // what was let go of is not counted any more: there is room for as much again
  work(ids[0]!, 1, 801);
  expect(earlier()[0]).toBe(800);
  letGo(ids[0]!);
});
