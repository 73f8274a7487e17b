import * as fc from '../property.test.kit';
import { anyChannelsOf } from '../contents.test.kit';

import { ternP2 } from '../models/tern-p2';
import { compareContents } from '.';

/** The same values in new objects. */
const again = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T;

/** A content, and what has been made of it: some slots the same in new objects, some changed, some emptied, some new. */
const anyRewrite = fc
  .tuple(
    anyChannelsOf(ternP2, 4).map(again),
    anyChannelsOf(ternP2, 4).map(again),
    fc.infiniteStream(fc.nat(3)),
  )
  .map(([before, others, dice]) => {
    const kept = before.flatMap((channel) => {
      const thrown = dice.next().value;
      if (thrown === 0) return [];
      return thrown === 1 ? [{ ...channel, scan: !channel.scan }] : [again(channel)];
    });
    const taken = new Set(before.map(({ slot }) => slot));
    const fresh = others.filter(({ slot }) => !taken.has(slot)).slice(0, 5);
    return { before, after: [...kept, ...fresh].sort((a, b) => a.slot - b.slot) };
  });

test('what is new, changed, emptied and the same adds up', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(anyRewrite, ({ before, after }) => {
      const change = compareContents(before, after);
      expect(change.added.length + change.changed.length + change.same).toBe(after.length);
      expect(change.removed.length + change.changed.length + change.same).toBe(before.length);
      const slots = new Set(after.map((channel) => channel.slot));
      expect(change.removed.every((channel) => !slots.has(channel.slot))).toBe(true);
      expect(change.changed.every((pair) => pair.before.slot === pair.after.slot)).toBe(true);
      // by the plain way: a slot is the same where all that stands there reads the same
      const was = new Map(before.map((channel) => [channel.slot, JSON.stringify(channel)]));
      expect(change.same).toBe(
        after.filter((channel) => was.get(channel.slot) === JSON.stringify(channel)).length,
      );
      for (const kind of ['added', 'changed', 'removed'] as const)
        reached.count(kind, change[kind].length > 0);
      reached.count('same', change.same > 0);
    }),
  );
  for (const kind of ['added', 'changed', 'removed', 'same']) reached.expectShare(kind, 0.5);
});

test('a content against itself changes nothing; one field makes a slot changed', () => {
  fc.assert(
    fc.property(anyChannelsOf(ternP2).map(again), (channels) => {
      fc.pre(channels.length > 0);
      expect(compareContents(channels, again(channels))).toEqual({
        added: [],
        changed: [],
        removed: [],
        same: channels.length,
      });
      const [first, ...others] = channels;
      const louder = { ...first!, power: first!.power === 4000 ? 1000 : 4000 };
      expect(compareContents(channels, [louder, ...others])).toEqual({
        added: [],
        changed: [{ before: first, after: louder, text: expect.stringMatching(/^power [14] W, was /) }],
        removed: [],
        same: others.length,
      });
    }),
    { numRuns: 50 },
  );
});
