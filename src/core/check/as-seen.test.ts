import { channel } from '../samples.test.kit';
import { asSeen } from './as-seen';

const before = [1, 2, 3].map((slot) => channel(slot, 145_500_000 + slot * 25_000));
const withSecond = (change: object) => before.map((one, at) => (at === 1 ? { ...one, ...change } : one));

test('the very same list while the fields that are read stay, however often others change', () => {
  const seen = asSeen('rx', 'slot');
  const first = seen(before);
  expect(first).toBe(before);
  expect(seen(withSecond({ name: 'Other' }))).toBe(first);
  expect(seen(withSecond({ name: 'Another', note: 'x' }))).toBe(first);
  expect(seen([...before])).toBe(first);
  expect(seen(before)).toBe(first);
});

test.each<[string, object]>([
  ['a field that is read', { rx: 145_600_000 }],
  ['another channel in its place', { id: 'ch_another' }],
])('another list with %s', (_, change) => {
  const seen = asSeen('rx', 'slot');
  seen(before);
  const changed = withSecond(change);
  expect(seen(changed)).toBe(changed);
  // and back again is another one still: what was worked out of the first is not asked for again
  expect(seen(before)).toBe(before);
});

test('another list with one more or one less', () => {
  const seen = asSeen('rx');
  seen(before);
  const less = before.slice(0, 2);
  expect(seen(less)).toBe(less);
  expect(seen(before)).toBe(before);
  expect(seen([])).toEqual([]);
});
