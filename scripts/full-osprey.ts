import {
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelId,
  type Plan,
  type PlanId,
  type ReceiveListId,
  type ScanListId,
  type Talkgroup,
  type TalkgroupId,
  type ZoneId,
} from '../src/core/plan';

/** A plan that fills an Osprey D7: every channel, zone, talkgroup and list that it has room for, all wired to one another. */
export function fullOsprey(id: string): Plan {
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const plan = newPlan(id as PlanId, { name: 'A full Osprey', modelId: 'osprey-d7', owner });
  const idOf = (prefix: string, n: number) => `${prefix}_full${String(n).padStart(5, '0')}`;
  const many = <T>(count: number, make: (n: number) => T) => Array.from({ length: count }, (_, n) => make(n));
  const talkgroups = many(8000, (n): Talkgroup => ({
    id: idOf('tg', n) as TalkgroupId,
    ...(n < 3000
      ? { name: `Isles group ${n}`, number: 100 + n, call: 'group' }
      : { name: `Q7${n} Wenna`, number: 1_000_000 + n, call: 'private' }),
  }));
  const receiveLists = many(200, (n) => ({
    id: idOf('rl', n) as ReceiveListId,
    name: `Receive ${n}`,
    members: many(48, (at) => talkgroups[(n * 15 + at) % 3000]!.id),
  }));
  const channels = many(3600, (n): Channel => {
    const rx = 438_650_000 + (n % 64) * 12_500;
    return {
      ...channelDefaults(rx),
      ...{ id: idOf('ch', n) as ChannelId, list: 0, slot: n + 1, name: `Ullsmere ${n}`, tx: rx - 7_600_000 },
      ...{
        mode: 'DMR',
        power: 5_000,
        talkgroup: talkgroups[n % 3000]!.id,
        receiveList: receiveLists[n % 200]!.id,
      },
      access: { kind: 'dmr', colourCode: n % 16, timeSlot: n % 2 === 0 ? 1 : 2 },
    };
  });
  const scanLists = many(200, (n) => ({
    ...{ id: idOf('sl', n) as ScanListId, name: `Scan ${n}`, first: channels[n]!.id, second: null },
    ...{
      members: many(40, (at) => channels[(n * 18 + at) % 3600]!.id),
      answers: 'heard' as const,
      startsItself: false,
    },
  }));
  const zones = many(200, (n) => ({
    ...{ id: idOf('zn', n) as ZoneId, name: `Zone ${n}`, scanList: scanLists[n]!.id },
    members: many(100, (at) => channels[(n * 18 + at) % 3600]!.id),
  }));
  return {
    ...plan,
    ...{ channels, talkgroups, receiveLists, scanLists, zones },
    settings: { 'osprey-d7': { radioId: 1_000_412, ownCall: 'Q7ABC' } },
  };
}
