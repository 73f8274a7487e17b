import type { Model } from '../models';
import {
  countOf,
  KINDS,
  RECEIVE_LIST_NAME_LIMIT,
  SCAN_LIST_NAME_LIMIT,
  type ChannelId,
  type MakeIds,
  type NewChannel,
  type OwnKind,
  type PlainEdit,
  type Plan,
  type RecordOf,
  type TalkgroupId,
} from '../plan';
import { remembered } from '../remember';

/** What comes along with channels of another plan: the talkgroups that they call, their receive and scan lists, and the zones that they are in. */

export interface Along {
  /** Before the channels, which refer to it. */
  before: PlainEdit[];
  /** After them, since it refers to them. */
  after: PlainEdit[];
  /** A channel's references as they are in one's own plan; null where its radio has no such thing. */
  refs: (channel: NewChannel) => Pick<NewChannel, 'talkgroup' | 'receiveList' | 'scanList'>;
  /** What comes: `4 talkgroups`. */
  comes: string[];
  /** What stays behind, and why, in sentences. */
  stays: string[];
}

const normal = (name: string) => name.trim().toLowerCase();

/** A name that none of the others has: with a number behind it where it is taken. */
function freeName(name: string, taken: Set<string>, most: number): string {
  let free = name;
  for (let n = 2; taken.has(normal(free)); n++) free = `${name.slice(0, most - String(n).length - 1)} ${n}`;
  taken.add(normal(free));
  return free;
}

const sameMembers = (one: readonly string[], other: readonly string[]) =>
  one.length === other.length && new Set([...one, ...other]).size === one.length;

const groupsById = remembered(
  (talkgroups: Plan['talkgroups']) =>
    new Map<unknown, string>(talkgroups.map(({ id, call, number }) => [id, `${call} ${number}`])),
);

/** The talkgroup of a channel as it is on air: two plans may give it other names and ids, and one number. */
export const groupKey = (plan: Plan, { talkgroup }: NewChannel): string =>
  groupsById(plan.talkgroups).get(talkgroup) ?? '';

/** Works out what comes along with channels; `ids` are those that go, with their ids in one's own plan. */
export function comeAlong(
  own: Plan,
  source: Plan,
  model: Model,
  ids: ReadonlyMap<ChannelId, ChannelId>,
  newId: MakeIds,
): Along {
  const channels = [...source.channels, ...source.leftOver].filter(({ id }) => ids.has(id));
  const mapped = (members: readonly ChannelId[]) => members.flatMap((id) => ids.get(id) ?? []);
  const comes: string[] = [];
  const stays: string[] = [];
  const put = <K extends OwnKind>(kind: K, records: RecordOf<K>[]): PlainEdit[] => {
    if (records.length === 0) return [];
    comes.push(countOf(records.length, KINDS[kind]));
    return [{ name: 'put', kind, records, before: null } as unknown as PlainEdit];
  };
  const lacks = (what: string) => stays.push(`${what} stay behind: the ${model.name} has none.`);

  // Talkgroups, and the receive lists of which they are members.
  const lists = source.receiveLists.filter(({ id }) => channels.some((one) => one.receiveList === id));
  const groups = new Map<string, TalkgroupId>();
  const listIds = new Map<string, RecordOf<'receiveList'>['id']>();
  const newGroups: RecordOf<'talkgroup'>[] = [];
  const newLists: RecordOf<'receiveList'>[] = [];
  if (model.digital) {
    const wanted = new Set<unknown>([
      ...channels.map((one) => one.talkgroup),
      ...lists.flatMap(({ members }) => members),
    ]);
    for (const group of source.talkgroups.filter(({ id }) => wanted.has(id))) {
      const same = own.talkgroups.find((one) => one.call === group.call && one.number === group.number);
      const id = same?.id ?? newId.talkgroup();
      groups.set(group.id, id);
      if (!same) newGroups.push({ ...group, id });
    }
    const names = new Set(own.receiveLists.map(({ name }) => normal(name)));
    for (const list of lists) {
      const members = [...new Set(list.members.flatMap((id) => groups.get(id) ?? []))];
      const same = own.receiveLists.find(
        (one) => normal(one.name) === normal(list.name) && sameMembers(one.members, members),
      );
      const id = same?.id ?? newId.receiveList();
      listIds.set(list.id, id);
      if (!same)
        newLists.push({ ...list, id, name: freeName(list.name, names, RECEIVE_LIST_NAME_LIMIT), members });
    }
  } else if (lists.length > 0 || channels.some((one) => one.talkgroup)) lacks('Talkgroups and receive lists');

  // Scan lists, and the zones that have them.
  const scanIds = new Map<string, RecordOf<'scanList'>['id']>();
  const newScans: RecordOf<'scanList'>[] = [];
  const fill: { id: RecordOf<'scanList'>['id']; set: Partial<RecordOf<'scanList'>> }[] = [];
  const scans = source.scanLists.filter(({ members }) => members.some((id) => ids.has(id)));
  if (model.scanLists) {
    const names = new Set(own.scanLists.map(({ name }) => normal(name)));
    for (const list of scans) {
      const id = newId.scanList();
      scanIds.set(list.id, id);
      newScans.push({
        ...{ ...list, id, name: freeName(list.name, names, SCAN_LIST_NAME_LIMIT) },
        ...{ members: [], first: null, second: null },
      });
      const one = (of: ChannelId | null) => (of === null ? null : (ids.get(of) ?? null));
      fill.push({
        id,
        set: { members: mapped(list.members), first: one(list.first), second: one(list.second) },
      });
    }
  } else if (scans.length > 0) lacks('Scan lists');

  const zones = model.zones
    ? source.zones
        .map((zone): RecordOf<'zone'> => {
          const scanList = zone.scanList ? scanIds.get(zone.scanList) : undefined;
          return {
            ...{ id: newId.zone(), name: zone.name, members: mapped(zone.members) },
            ...(zone.knob && {
              knob: zone.knob.map(({ channel }) => ({ channel: (channel && ids.get(channel)) ?? null })),
            }),
            ...(scanList && { scanList }),
          };
        })
        .filter(({ members }) => members.length > 0)
    : [];

  const before = [
    ...put('talkgroup', newGroups),
    ...put('receiveList', newLists),
    ...put('scanList', newScans),
  ];
  const after: PlainEdit[] = fill.length > 0 ? [{ name: 'change', kind: 'scanList', changes: fill }] : [];
  after.push(...put('zone', zones));
  return {
    before,
    after,
    refs: ({ talkgroup, receiveList, scanList }) => ({
      ...(talkgroup !== undefined && { talkgroup: (talkgroup && groups.get(talkgroup)) ?? null }),
      ...(receiveList !== undefined && { receiveList: (receiveList && listIds.get(receiveList)) ?? null }),
      ...(scanList !== undefined && { scanList: (scanList && scanIds.get(scanList)) ?? null }),
    }),
    comes,
    stays,
  };
}
