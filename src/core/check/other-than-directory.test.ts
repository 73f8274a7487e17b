import { digital, groupId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { fit } from '../fit';
import { applyEdit, type Channel, type Plan } from '../plan';
import { plan } from '../samples.test.kit';
import { check, mendsOf } from '.';
import type { Neighbour } from './neighbour';

const hill = (more: Partial<Neighbour> = {}): Neighbour => ({
  ...{ name: 'Ullsmere Hill Q7ULL', output: 439_412_500, input: 431_812_500, lat: 52.2, lon: -30.1 },
  access: { kind: 'dmr', colourCode: 3, timeSlot: 1 },
  groups: [
    { number: 100, name: 'Isles', slot: 1 },
    { number: 110, name: 'Ullsmere', slot: 2 },
  ],
  ...more,
});
const dmr = (colourCode: number, timeSlot: 1 | 2) => ({ kind: 'dmr' as const, colourCode, timeSlot });
const source = { directory: 'relay-register', entry: 'RR-1', service: 'amateur', lat: 52.2, lon: -30.1 };
const own = (fields: Partial<Channel>) => ({
  ...plan([digital(1, { source, ...fields })]),
  modelId: 'kestrel-c1',
  talkgroups: [
    { id: groupId(1), name: 'Isles', number: 100, call: 'group' as const },
    { id: groupId(2), name: 'Ours', number: 777, call: 'group' as const },
  ],
});
const checked = (p: Plan, near: readonly Neighbour[]) => check(p, kestrelC1, fit(p, kestrelC1), near);
const said = (fields: Partial<Channel>, near: Neighbour[] = [hill()]) =>
  checked(own(fields), near).filter(({ rule }) => rule === 'other-than-directory');

test.each([
  [
    { access: dmr(1, 1), talkgroup: groupId(1) },
    'The directory has colour code 3 for “Ullsmere Hill Q7ULL”; this is 1, to which it does not answer.',
    dmr(3, 1),
  ],
  [
    { access: dmr(3, 2), talkgroup: groupId(1) },
    'The directory has talkgroup 100 in time slot 1 of “Ullsmere Hill Q7ULL”; in slot 2 nobody who calls it is heard.',
    dmr(3, 1),
  ],
])('%j is said, and its mend takes it away', (fields, text, access) => {
  const before = own(fields);
  const [found] = said(fields);
  expect(found).toMatchObject({ severity: 'caution', text });
  const [mend] = mendsOf(found!, before, kestrelC1);
  const after = applyEdit(before, mend!.edit);
  if (!after.ok) throw new Error(after.reason);
  expect(after.value.channels[0]!.access).toEqual(access);
  expect(checked(after.value, [hill()]).map(({ rule }) => rule)).not.toContain('other-than-directory');
});

test('nothing is said where they agree, where the directory does not know, and of what only listens', () => {
  const wrong = { access: dmr(1, 1), talkgroup: groupId(1) };
  expect(said(wrong)).toHaveLength(1);
  expect(said({ access: dmr(3, 1), talkgroup: groupId(1) })).toEqual([]);
  // A talkgroup of which the repeater says nothing may be carried in either slot.
  expect(said({ access: dmr(3, 2), talkgroup: groupId(2) })).toEqual([]);
  expect(said(wrong, [])).toEqual([]);
  expect(said(wrong, [hill({ output: 439_425_000 })])).toEqual([]);
  expect(said(wrong, [hill({ access: { kind: 'open' } as never })])).toEqual([]);
  // 160 km to the north: 1.44 degrees of 111.2 km
  expect(said(wrong, [hill({ lat: 53.64 })])).toEqual([]);
  expect(said({ ...wrong, tx: null })).toEqual([]);
  // Of two on the same frequencies within reach, one of which is like it, that one may be meant.
  expect(said(wrong, [hill(), hill({ lat: 52.9, access: dmr(1, 1) })])).toEqual([]);
});

test('of several that are all otherwise the nearest is named', () => {
  const far = hill({ name: 'Brannoch Moor', lat: 53, access: dmr(7, 1) });
  for (const near of [
    [far, hill()],
    [hill(), far],
  ])
    expect(said({ access: dmr(1, 1), talkgroup: groupId(1) }, near)[0]!.text).toContain('colour code 3');
});
