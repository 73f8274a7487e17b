import {
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type Plan,
  type PlanId,
  type ReceiveListId,
  type ScanListId,
  type Talkgroup,
  type TalkgroupId,
  type ZoneId,
} from '../src/core/plan';
import { parseAccess } from '../src/core/radio';

/** Plans for the digital radios of the shelf. The same on every machine. */

const owner = { callSign: 'Q7KWD', region: 'orrin' as const, grade: 'full' as const, strict: false };

/** A plan under way: what is added gets its id by its place. */
function planning(key: string, name: string, modelId: string) {
  const plan: Plan = { ...newPlan(`pl_${key}` as PlanId, { name, modelId, owner }) };
  const id = (prefix: string, n: number) => `${prefix}_${key}${String(n).padStart(3, '0')}`;
  return {
    plan,
    group(name: string, number: number, more: Partial<Talkgroup> = {}): TalkgroupId {
      const one = {
        id: id('tg', plan.talkgroups.length + 1) as TalkgroupId,
        name,
        number,
        call: 'group' as const,
      };
      plan.talkgroups.push({ ...one, ...more });
      return one.id;
    },
    receiveList(name: string, members: TalkgroupId[]): ReceiveListId {
      const one = { id: id('rl', plan.receiveLists.length + 1) as ReceiveListId, name, members };
      plan.receiveLists.push(one);
      return one.id;
    },
    channel(
      name: string,
      rx: number,
      tx: number | null,
      text: string,
      more: Partial<ChannelFields> = {},
    ): ChannelId {
      const access = parseAccess(text);
      if (!access.ok) throw new Error(access.reason);
      const slot = plan.channels.length + 1;
      const mode = access.value.kind === 'dmr' ? 'DMR' : 'FM';
      const one: Channel = {
        ...channelDefaults(rx),
        ...{
          id: id('ch', slot) as ChannelId,
          list: 0,
          slot,
          name,
          tx,
          access: access.value,
          mode,
          power: 5_000,
        },
        ...more,
      };
      plan.channels.push(one);
      return one.id;
    },
    scanList(name: string, members: ChannelId[], first: ChannelId | null, startsItself = false): ScanListId {
      const one = {
        id: id('sl', plan.scanLists.length + 1) as ScanListId,
        name,
        members,
        first,
        second: null,
      };
      plan.scanLists.push({ ...one, answers: startsItself ? 'begun' : 'heard', startsItself });
      return one.id;
    },
    zone(name: string, members: ChannelId[], more: Partial<Plan['zones'][number]> = {}) {
      plan.zones.push({ id: id('zn', plan.zones.length + 1) as ZoneId, name, members, ...more });
    },
  };
}

/** An Osprey D7 for the digital network of the isles: two repeaters, their talkgroups, three zones. */
export function islesNetwork(): Plan {
  const at = planning('islesnetwork', 'Isles network', 'osprey-d7');
  const [isles, ullsmere, brannoch, farrow, rescue, weather] = [
    ['Isles', 100],
    ['Ullsmere', 110],
    ['Brannoch', 120],
    ['Farrow', 130],
    ['Isles Rescue', 160],
    ['Weather net', 190],
  ].map(([name, number]) => at.group(String(name), Number(number)));
  const all = at.receiveList('All of the isles', [isles!, ullsmere!, brannoch!, farrow!, rescue!]);
  const local = at.receiveList('Local', [ullsmere!, weather!]);
  const polite = { politeness: { to: 'own colour code' as const } };
  const hill = (name: string, slot: 1 | 2, talkgroup: TalkgroupId, receiveList: ReceiveListId) =>
    at.channel(name, 439_412_500, 431_812_500, `CC1 TS${slot}`, { talkgroup, receiveList, ...polite });
  const head = (name: string, slot: 1 | 2, talkgroup: TalkgroupId, receiveList: ReceiveListId) =>
    at.channel(name, 439_437_500, 431_837_500, `CC3 TS${slot}`, { talkgroup, receiveList, ...polite });
  const one = [
    hill('Ullsmere Isles', 1, isles!, all),
    hill('Ullsmere Rescue', 1, rescue!, all),
    hill('Ullsmere Local', 2, ullsmere!, local),
    hill('Ullsmere Weather', 2, weather!, local),
  ];
  const two = [
    head('Brannoch Isles', 1, isles!, all),
    head('Brannoch Farrow', 1, farrow!, all),
    head('Brannoch Local', 2, brannoch!, local),
  ];
  const fm = [
    at.channel('Calling 2 m', 145_500_000, 145_500_000, ''),
    at.channel('Ullsmere Hill', 145_612_500, 145_012_500, '88.5'),
    at.channel('Brannoch Head', 145_737_500, 145_137_500, '94.8/94.8'),
  ];
  const scan = at.scanList('Ullsmere', [...one, fm[0]!], one[0]!);
  at.zone('Ullsmere', [...one, ...fm.slice(0, 2)], { scanList: scan });
  at.zone('Brannoch', [...two, fm[0]!, fm[2]!]);
  at.zone('All digital', [...one, ...two]);
  return {
    ...at.plan,
    settings: { 'osprey-d7': { radioId: 1_000_412, ownCall: 'Q7KWD', shows: 'name', alias: true } },
  };
}

/** A Kestrel C1 of the rescue team: what each position of the knob does; the scan of one of them is silent, and two lists sound alike. */
export function rescueTeam(): Plan {
  const at = planning('rescueteam', 'Rescue team', 'kestrel-c1');
  const [rescue, search, boats] = [
    at.group('Isles Rescue', 160),
    at.group('Search', 161),
    at.group('Boats', 0x162, { encrypted: true }),
  ];
  const team = at.receiveList('Team', [rescue, search]);
  at.receiveList('Harbour', [boats]);
  const polite = { politeness: { to: 'own colour code' as const }, power: 4_000 };
  const channels = [
    at.channel('Team Ullsmere', 439_412_500, 431_812_500, 'CC1 TS2', {
      talkgroup: rescue,
      receiveList: team,
      ...polite,
    }),
    at.channel('Team Brannoch', 439_437_500, 431_837_500, 'CC3 TS2', {
      talkgroup: rescue,
      receiveList: team,
      ...polite,
    }),
    at.channel('Search', 433_475_000, 433_475_000, 'CC1 TS1', {
      ...{ talkgroup: search, receiveList: team, power: 4_000 },
      politeness: { to: 'all', level: -105 },
    }),
    at.channel('Calling 70 cm', 433_500_000, 433_500_000, '', { power: 4_000 }),
    at.channel('Boats', 433_450_000, 433_450_000, 'CC1 TS1', {
      talkgroup: boats,
      receiveList: team,
      ...polite,
    }),
  ];
  const round = at.scanList('Round', channels.slice(0, 3), channels[0]!, true);
  at.scanList('round', [channels[3]!], null);
  at.plan.channels[0] = { ...at.plan.channels[0]!, scanList: round };
  at.plan.channels[2] = { ...at.plan.channels[2]!, scanList: round };
  const [a, b, c, d] = channels.map((channel) => ({ channel }));
  const none = { channel: null };
  at.zone('Team', channels.slice(0, 4), { knob: [a!, b!, c!, none, none, none, none, d!] });
  at.zone('Water', [channels[4]!, channels[2]!]);
  return {
    ...at.plan,
    settings: { 'kestrel-c1': { radioId: 1_160_073, ownCall: 'Q7RS', shows: 'name' } },
  };
}
