import * as fc from '../property.test.kit';
import { anyAccess, channel } from '../samples.test.kit';
import { MODES, OPEN } from '../radio';
import { nearDuplicate, sameChannel } from '.';

const base = channel(1, 145_612_500, {
  tx: 145_012_500,
  access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
});

test('the same channel is the same under any name, in any slot, with any power', () => {
  const other = { ...base, slot: 9, name: 'Other', power: 1000, scan: false, note: 'x' };
  expect(sameChannel(base, other)).toBe(true);
  expect(nearDuplicate(base, other)).toBe(false);
});

test.each([
  ['receive', { rx: 145_625_000 }, false],
  ['transmit', { tx: 145_025_000 }, false],
  ['the mode', { mode: 'NFM' as const }, true],
  ['access', { access: OPEN }, true],
  ['listening only', { tx: null }, true],
])('%s apart it is another one, called the same or not; side by side: %s', (_, fields, near) => {
  expect(sameChannel(base, { ...base, ...fields })).toBe(false);
  expect(nearDuplicate(base, { ...base, ...fields })).toBe(near);
  expect(nearDuplicate({ ...base, ...fields }, base)).toBe(near);
});

test('both ways round it is the same answer, and never both at once', () => {
  const any = fc.record(
    {
      rx: fc.constantFrom(145_600_000, 145_700_000),
      tx: fc.constantFrom(null, 145_000_000, 145_100_000),
      mode: fc.constantFrom(...MODES),
      access: fc.oneof(fc.constant(OPEN), anyAccess),
    },
    { noNullPrototype: true },
  );
  fc.assert(
    fc.property(any, any, (a, b) => {
      expect(sameChannel(a, b)).toBe(sameChannel(b, a));
      expect(nearDuplicate(a, b)).toBe(nearDuplicate(b, a));
      expect(sameChannel(a, b) && nearDuplicate(a, b)).toBe(false);
      expect(sameChannel(a, JSON.parse(JSON.stringify(a)) as typeof a)).toBe(true);
    }),
  );
});
