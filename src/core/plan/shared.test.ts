import { channel, id, plan, run, three, zoneId } from '../samples.test.kit';
import { channelKind, outcomeFault, sharedWith, zoneKind, type Plan } from '.';

/** What came of a log or over a wire is told from what is there by identity. */

const zoned: Plan = { ...three, zones: [{ id: zoneId(1), name: 'All', members: [id(1), id(2)] }] };

test('what is alike is the very same, what is not stays what it is', () => {
  const copy = JSON.parse(JSON.stringify(zoned)) as Plan;
  const shared = sharedWith(zoned, copy);
  expect(shared.channels.every((one, at) => one === zoned.channels[at])).toBe(true);
  expect(shared.zones[0]).toBe(zoned.zones[0]);
  expect(shared.owner).toBe(zoned.owner);
  const other = JSON.parse(
    JSON.stringify({ ...zoned, name: 'Other', owner: { ...zoned.owner, callSign: 'Q8XYZ' } }),
  ) as Plan;
  other.channels[1]!.name = 'Changed';
  const partly = sharedWith(zoned, other);
  expect(partly).toEqual(other);
  expect(partly.channels.map((one, at) => one === zoned.channels[at])).toEqual([true, false, true]);
  expect(partly.owner).not.toBe(zoned.owner);
  expect(partly.settings).toBe(zoned.settings);
});

test('who overwrites a channel takes it out of the zones too', () => {
  const { slot: _, list: _list, ...fields } = channel(9, 145_525_000);
  const after = run(zoned, {
    name: 'place',
    channels: [fields],
    placement: 'overwrite',
    at: 1,
    range: { first: 0, count: 150 },
  });
  expect(after.zones[0]!.members).toEqual([id(2)]);
  // pushed down it stays in them
  const pushed = run(zoned, {
    name: 'place',
    channels: [fields],
    placement: 'push-down',
    at: 1,
    range: { first: 0, count: 150 },
  });
  expect(pushed.zones).toBe(zoned.zones);
});

test('what is wrong with an outcome is said with its place; as many as there may be are no fault', () => {
  expect(outcomeFault(zoned, { ...zoned, name: '' })).toBe(
    'The plan would not be one any more: name is empty.',
  );
  expect(outcomeFault(zoned, { ...zoned, zones: [{ ...zoned.zones[0]!, name: '' }] })).toBe(
    'The plan would not be one any more: zones.0.name is empty.',
  );
  const many = (n: number) =>
    plan(
      Array.from({ length: n }, (_, slot) => ({
        ...three.channels[0]!,
        id: `ch_many${String(slot).padStart(6, '0')}` as never,
        slot,
      })),
    );
  expect(outcomeFault(plan([]), many(channelKind.limit))).toBeNull();
  const zones = (n: number) => ({
    ...three,
    zones: Array.from({ length: n }, (_, at) => ({ id: zoneId(at), name: 'Z', members: [] })),
  });
  expect(outcomeFault(three, zones(zoneKind.limit))).toBeNull();
  expect(outcomeFault(three, zones(zoneKind.limit + 1))).toBe(
    'A plan holds 1000 zones at most; this would make 1001.',
  );
});
