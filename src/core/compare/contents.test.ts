import fc from 'fast-check';
import { anyTernChannels } from '../samples.test.kit';
import { compareContents } from '.';

/** The same values in new objects. */
const again = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T;

test('what is new, changed, emptied and the same adds up', () => {
  fc.assert(
    fc.property(anyTernChannels, anyTernChannels, (before, after) => {
      const change = compareContents(before, after);
      expect(change.added.length + change.changed.length + change.same).toBe(after.length);
      expect(change.removed.length + change.changed.length + change.same).toBe(before.length);
      const slots = new Set(after.map((channel) => channel.slot));
      expect(change.removed.every((channel) => !slots.has(channel.slot))).toBe(true);
      expect(change.changed.every((pair) => pair.before.slot === pair.after.slot)).toBe(true);
    }),
  );
});

test('a content against itself changes nothing; one field makes a slot changed', () => {
  fc.assert(
    fc.property(anyTernChannels.map(again), (channels) => {
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
        changed: [{ before: first, after: louder }],
        removed: [],
        same: others.length,
      });
    }),
    { numRuns: 50 },
  );
});
