import type { Model } from '../models';
import {
  channelDefaults,
  fillTemplate,
  NAME_LIMIT,
  type Channel,
  type ChannelId,
  type Edit,
  type NewChannel,
  type Plan,
  type PlainEdit,
  type ReceiveList,
  type ReceiveListId,
  type Talkgroup,
  type TalkgroupId,
  type Zone,
  type ZoneId,
} from '../plan';
import { fail, ok, type Result } from '../result';
import { placeWhatFits } from '../table/left-over';
import { cutText } from '../text';
import { nameFields } from './choose';
import type { Entry, EntryGroup } from './entry';

/** Digital repeaters and their talkgroups as channels, receive lists and zones: several of a network at once, and what they share made once. */

/** A repeater that is chosen, with those of its talkgroups that are wanted. */
export interface ChosenRepeater {
  directory: string;
  entry: Entry;
  groups: readonly EntryGroup[];
}

/** Ids for what is made; core has no randomness of its own. */
export interface NetworkIds {
  channel: () => ChannelId;
  talkgroup: () => TalkgroupId;
  receiveList: () => ReceiveListId;
  zone: () => ZoneId;
}

/** What comes of it, before it is done. */
export interface NetworkMade {
  /** One edit for all of it. */
  edit: Edit;
  channels: readonly NewChannel[];
  talkgroups: readonly Talkgroup[];
  receiveLists: readonly ReceiveList[];
  zones: readonly Zone[];
  /** Talkgroups and lists of the plan that serve as they are. */
  shared: { talkgroups: number; receiveLists: number };
  /** Channels that the plan has already: same repeater, time slot and talkgroup. */
  there: number;
  /** Channels that find no slot, and wait left over. */
  over: number;
}

/** Groups that a radio without a key understands; the others are left out unless they are asked for. */
export const openGroups = ({ groups = [] }: Pick<Entry, 'groups'>, encrypted = false): EntryGroup[] =>
  groups.filter((group) => encrypted || !group.encrypted);

/** The fields that a name template knows of a group on a repeater, besides those of the repeater. */
export const groupFields = (
  entry: Entry,
  group: EntryGroup,
  plan: Pick<Plan, 'owner'>,
): Record<string, string> => ({
  ...nameFields(entry, plan.owner.region),
  group: group.name,
  slot: String(group.slot),
  number: String(group.number),
  network: entry.network ?? '',
});

const sameMembers = (a: readonly string[], b: readonly string[]) =>
  a.length === b.length && a.every((id) => b.includes(id));

/**
 * Makes channels (one a talkgroup and time slot), talkgroups, receive lists (one a repeater's time slot, the same ones once) and a zone
 * a repeater. What the plan has already serves as it is. Fails where the template does, or where nothing is left to make.
 */
export function networkOf(
  plan: Plan,
  model: Model,
  chosen: readonly ChosenRepeater[],
  template: string,
  ids: NetworkIds,
): Result<NetworkMade> {
  const groupsByNumber = new Map(
    plan.talkgroups.filter(({ call }) => call === 'group').map((group) => [group.number, group]),
  );
  const talkgroups: Talkgroup[] = [];
  const receiveLists: ReceiveList[] = [];
  const zones: Zone[] = [];
  const channels: NewChannel[] = [];
  const shared = { talkgroups: new Set<string>(), receiveLists: new Set<string>() };
  let there = 0;
  const groupOf = (group: EntryGroup): Talkgroup => {
    const known = groupsByNumber.get(group.number);
    if (known) {
      if (!talkgroups.includes(known)) shared.talkgroups.add(known.id);
      return known;
    }
    const { name, number, encrypted } = group;
    const made = {
      id: ids.talkgroup(),
      name,
      number,
      call: 'group' as const,
      ...(encrypted && { encrypted }),
    };
    groupsByNumber.set(number, made);
    talkgroups.push(made);
    return made;
  };
  const listOf = (members: readonly TalkgroupId[], name: string): ReceiveList => {
    const known = [...plan.receiveLists, ...receiveLists].find((list) => sameMembers(list.members, members));
    if (known) {
      if (!receiveLists.includes(known)) shared.receiveLists.add(known.id);
      return known;
    }
    const made = { id: ids.receiveList(), name: cutText(name, 32).trim(), members: [...members] };
    receiveLists.push(made);
    return made;
  };
  const existing = new Map<string, ChannelId>();
  const keyOf = (rx: number, tx: number | null, slot: number, talkgroup: string) =>
    `${rx} ${tx} ${slot} ${talkgroup}`;
  for (const { id, rx, tx, access, talkgroup } of plan.channels)
    if (access.kind === 'dmr' && talkgroup) existing.set(keyOf(rx, tx, access.timeSlot, talkgroup), id);

  for (const { directory, entry, groups } of chosen) {
    const colourCode = entry.access.kind === 'dmr' ? entry.access.colourCode : 1;
    const members: ChannelId[] = [];
    for (const timeSlot of [1, 2] as const) {
      const here = groups.filter(({ slot }) => slot === timeSlot);
      if (here.length === 0) continue;
      const called = here.map(groupOf);
      const most = model.digital?.receiveLists.members ?? called.length;
      const list = listOf(
        called.slice(0, most).map(({ id }) => id),
        entry.network
          ? `${entry.network} ${called.length === 1 ? called[0]!.name : `TS${timeSlot}`}`
          : `${entry.site} TS${timeSlot}`,
      );
      for (const [at, group] of here.entries()) {
        const talkgroup = called[at]!.id;
        const known = existing.get(keyOf(entry.output, entry.input, timeSlot, talkgroup));
        if (known) {
          there++;
          members.push(known);
          continue;
        }
        const name = fillTemplate(template, groupFields(entry, group, plan));
        if (!name.ok) return name;
        const id = ids.channel();
        existing.set(keyOf(entry.output, entry.input, timeSlot, talkgroup), id);
        members.push(id);
        channels.push(
          channelFor(id, { directory, entry }, cutText(name.value, NAME_LIMIT).trim(), {
            access: { kind: 'dmr', colourCode, timeSlot },
            talkgroup,
            receiveList: list.id,
            power: model.powers[0]!.milliwatts,
          }),
        );
      }
    }
    zones.push(...zonesOf(members, entry.site, model, ids));
  }
  if (channels.length === 0)
    return fail(
      there > 0 ? 'The plan has all of these channels already.' : 'Choose talkgroups that it carries.',
    );

  const placing = placeWhatFits(plan, channels, {
    placement: 'next-free',
    at: model.slots.first,
    range: model.slots,
    list: 0,
  });
  // What waits left over has no place in a zone.
  const placed = new Set<string>([...plan.channels.map(({ id }) => id), ...placedIn(placing.edit)]);
  const held = zones
    .map((zone) => ({ ...zone, members: zone.members.filter((id) => placed.has(id)) }))
    .filter(({ members }) => members.length > 0);
  const edits: PlainEdit[] = [
    ...(talkgroups.length > 0
      ? [{ name: 'put' as const, kind: 'talkgroup' as const, records: talkgroups, before: null }]
      : []),
    ...(receiveLists.length > 0
      ? [{ name: 'put' as const, kind: 'receiveList' as const, records: receiveLists, before: null }]
      : []),
    ...plainOf(placing.edit),
    ...(held.length > 0 && model.zones
      ? [{ name: 'put' as const, kind: 'zone' as const, records: held, before: null }]
      : []),
  ];
  const sites = chosen.length === 1 ? chosen[0]!.entry.site : `${chosen.length} repeaters`;
  return ok({
    edit: {
      name: 'together',
      label: `Add ${channels.length === 1 ? '1 channel' : `${channels.length} channels`} of ${sites}`,
      edits,
    },
    ...{ channels, talkgroups, receiveLists, zones: held, there, over: placing.over },
    shared: { talkgroups: shared.talkgroups.size, receiveLists: shared.receiveLists.size },
  });
}

const channelFor = (
  id: ChannelId,
  { directory, entry }: Pick<ChosenRepeater, 'directory' | 'entry'>,
  name: string,
  fields: Pick<Channel, 'access' | 'talkgroup' | 'receiveList' | 'power'>,
): NewChannel => ({
  ...channelDefaults(entry.output),
  ...{ id, name, tx: entry.input, mode: 'DMR' as const, ...fields },
  // A repeater is not talked over: a radio waits while its own colour code is heard.
  politeness: { to: 'own colour code' },
  source: {
    ...{
      directory,
      entry: entry.ref,
      service: entry.service,
      place: entry.site,
      lat: entry.lat,
      lon: entry.lon,
    },
    ...(entry.call && { call: entry.call }),
  },
});

/** A zone for a repeater; where it has more channels than one holds, several. */
function zonesOf(members: readonly ChannelId[], name: string, { zones }: Model, ids: NetworkIds): Zone[] {
  const most = zones?.members ?? Infinity;
  const made: Zone[] = [];
  for (let at = 0; at < members.length; at += most) {
    const n = made.length + 1;
    made.push({
      id: ids.zone(),
      name: n === 1 ? cutText(name, 32).trim() : `${cutText(name, 28).trim()} ${n}`,
      members: members.slice(at, Math.min(members.length, at + most)),
    });
  }
  return made;
}

const plainOf = (edit: Edit): PlainEdit[] => (edit.name === 'together' ? edit.edits : [edit]);

const placedIn = (edit: Edit): string[] =>
  plainOf(edit).flatMap((one) => (one.name === 'place' ? one.channels.map(({ id }) => id) : []));
