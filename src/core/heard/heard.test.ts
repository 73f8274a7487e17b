import { channel, id } from '../samples.test.kit';
import { byChannel, mostDoubtful, silentFor } from '.';

const NOW = Date.parse('2026-11-27T12:00:00.000Z');
const heard = byChannel([
  { channel: id(1), times: 40, last: '2026-11-26T12:00:00.000Z', weeks: [] },
  { channel: id(2), times: 2, last: '2026-09-01T12:00:00.000Z', weeks: [] },
  { channel: id(3), times: 7, last: '2026-06-01T12:00:00.000Z', weeks: [] },
  { channel: id(4), times: 1, last: '2026-06-01T12:00:00.000Z', weeks: [] },
  { channel: id(8), times: 1, last: '2026-11-28T00:00:00.000Z', weeks: [] },
]);
const channels = [1, 2, 3, 4, 5, 6, 8].map((slot) => channel(slot, 145_500_000));
const doubtful = (weeks: number) => mostDoubtful(channels, heard, NOW, weeks).map(({ slot }) => slot);

test('for how long a channel is silent; a clock that is ahead is now', () => {
  expect(silentFor(heard.get(id(1)), NOW)).toBe(86_400_000);
  expect(silentFor(heard.get(id(8)), NOW)).toBe(0);
  expect(silentFor(undefined, NOW)).toBeNull();
});

test('the most doubtful come first: never heard by slot, then the longest silent, then the least often', () => {
  // 1 September is 12 weeks and 3 days ago, 1 June 25 weeks and 4 days
  expect(doubtful(12)).toEqual([5, 6, 4, 3, 2]);
  expect(doubtful(13)).toEqual([5, 6, 4, 3]);
  expect(doubtful(26)).toEqual([5, 6]);
});

test('the last moment of the weeks counts', () => {
  const [one] = channels;
  const at = (ms: number) =>
    byChannel([{ channel: one!.id, times: 1, last: new Date(NOW - ms).toISOString(), weeks: [] }]);
  expect(mostDoubtful([one!], at(2 * 604_800_000), NOW, 2)).toHaveLength(1);
  expect(mostDoubtful([one!], at(2 * 604_800_000 - 1), NOW, 2)).toHaveLength(0);
});
