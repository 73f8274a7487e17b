import * as fc from './property.test.kit';
import { channel, id, plan } from './samples.test.kit';
import type { Channel, Edit, Plan, ReceiveListId, ScanListId, TalkgroupId, ZoneId } from './plan';

/** Generators of digital plans and of what is done to them; not used by the application. */

export const groupId = (n: number) => `tg_test${String(n).padStart(4, '0')}` as TalkgroupId;
export const receiveId = (n: number) => `rl_test${String(n).padStart(4, '0')}` as ReceiveListId;
export const scanId = (n: number) => `sl_test${String(n).padStart(4, '0')}` as ScanListId;
export const zoneIdOf = (n: number) => `zn_test${String(n).padStart(4, '0')}` as ZoneId;

/** A digital channel of a repeater. */
export const digital = (slot: number, fields: Partial<Channel> = {}): Channel =>
  channel(slot, 439_412_500, {
    ...{ tx: 431_812_500, mode: 'DMR', power: 4_000, name: `Digital ${slot}` },
    access: { kind: 'dmr', colourCode: 1, timeSlot: slot % 2 === 0 ? 2 : 1 },
    ...fields,
  });

const some = <T>(of: readonly T[], most = of.length) =>
  fc.shuffledSubarray([...of], { maxLength: Math.min(most, of.length) });
const one = <T>(of: readonly T[]) =>
  of.length === 0 ? fc.constant(null) : fc.option(fc.constantFrom(...of));

/** A plan for a digital radio: channels, talkgroups, lists and zones that refer to one another in any way. */
export const anyDigitalPlan = (modelId: string): fc.Arbitrary<Plan> =>
  fc
    .record({
      channels: fc.integer({ min: 1, max: 24 }),
      groups: fc.integer({ min: 0, max: 12 }),
      lists: fc.integer({ min: 0, max: 4 }),
      scans: fc.integer({ min: 0, max: 4 }),
      zones: fc.integer({ min: 1, max: 4 }),
    })
    .chain((n) => {
      const numbers = (count: number) => Array.from({ length: count }, (_, at) => at + 1);
      const channels = numbers(n.channels).map(id);
      const groups = numbers(n.groups).map(groupId);
      const lists = numbers(n.lists).map(receiveId);
      const scans = numbers(n.scans).map(scanId);
      return fc.record(
        {
          channels: fc.tuple(
            ...numbers(n.channels).map((slot) =>
              fc
                .tuple(one(groups), one(lists), one(scans), fc.boolean(), fc.boolean())
                .map(([talkgroup, receiveList, scanList, analogue, alwaysOn]) =>
                  analogue
                    ? channel(slot, 433_500_000, { scanList, alwaysOn })
                    : digital(slot, { talkgroup, receiveList, scanList }),
                ),
            ),
          ),
          talkgroups: fc.tuple(
            ...groups.map((own, at) =>
              fc.record(
                {
                  id: fc.constant(own),
                  name: fc.constantFrom(`Group ${at}`, 'Isles'),
                  number: fc.integer({ min: 100, max: 110 }),
                  call: fc.constantFrom(
                    'group' as const,
                    'group' as const,
                    'private' as const,
                    'all' as const,
                  ),
                },
                { noNullPrototype: true },
              ),
            ),
          ),
          receiveLists: fc.tuple(
            ...lists.map((own, at) =>
              some(groups).map((members) => ({ id: own, name: at % 2 ? 'Isles' : `List ${at}`, members })),
            ),
          ),
          scanLists: fc.tuple(
            ...scans.map((own, at) =>
              fc
                .tuple(some(channels), one(channels), one(channels), fc.boolean())
                .map(([members, first, second, startsItself]) => ({
                  ...{ id: own, name: `Scan ${at % 3}`, members, first, second },
                  ...{ answers: 'heard' as const, startsItself },
                })),
            ),
          ),
          zones: fc.tuple(
            ...numbers(n.zones).map((at) =>
              fc
                .tuple(some(channels), fc.array(one(channels), { maxLength: 16 }), fc.boolean(), one(scans))
                .map(([members, knob, arranged, scanList]) => ({
                  ...{ id: zoneIdOf(at), name: `Zone ${at}`, members, scanList },
                  knob: arranged ? knob.map((of) => ({ channel: of })) : null,
                })),
            ),
          ),
        },
        { noNullPrototype: true },
      );
    })
    .map((lists) => ({ ...plan([]), ...lists, modelId }));

/** Takes something away: channels, talkgroups, lists or zones. */
export function anyRemovalOn(p: Plan): fc.Arbitrary<Edit> {
  const of = (kind: string, records: readonly { id: string }[]) =>
    records.length === 0
      ? []
      : [
          fc
            .shuffledSubarray(
              records.map((record) => record.id),
              { minLength: 1 },
            )
            .map((ids) => ({ name: 'remove', kind, ids }) as unknown as Edit),
        ];
  return fc.oneof(
    ...of('channel', p.channels),
    ...of('talkgroup', p.talkgroups),
    ...of('receiveList', p.receiveLists),
    ...of('scanList', p.scanLists),
    ...of('zone', p.zones),
  );
}
