import type { Model } from '../models';
import type { Channel, Plan, PlainEdit, ReceiveList, ScanList, Talkgroup } from '../plan';
import { remembered, rememberedAlong } from '../remember';
import type { Severity } from './finding';
import type { BesideFinding, Mend } from './finding.schema';

/**
 * What Check says of how knob, channels, talkgroups and lists are wired: where a chain is broken, what will not be heard or answered, and
 * why; and what nobody uses, or is there twice.
 */

type Kind = BesideFinding['kind'];

const say = (
  rule: string,
  severity: Severity,
  { kind, id }: { kind: Kind; id: string },
  text: string,
  mends: readonly Mend[] = [],
): BesideFinding => ({ rule, severity, kind, id, text, mends: [...mends] });

/** So many things of a kind are said one by one; how many more there are is said once. */
export const MOST_ALIKE = 100;

/** Counts what is said by rule; true where so much is said already that the rest is only counted. */
function counting() {
  const counts = new Map<string, { n: number; last: { kind: Kind; id: string } }>();
  return {
    full(rule: string, last: { kind: Kind; id: string }): boolean {
      const before = counts.get(rule);
      counts.set(rule, { n: (before?.n ?? 0) + 1, last });
      return (before?.n ?? 0) >= MOST_ALIKE;
    },
    *rest(): Generator<BesideFinding> {
      for (const [rule, { n, last }] of counts)
        if (n > MOST_ALIKE)
          yield say(rule, 'hint', last, `${n - MOST_ALIKE} more are like that: mend some, and they come.`);
    },
  };
}
type Counting = ReturnType<typeof counting>;

const called = ({ name, rx }: Channel) => name || `${rx / 1e6} MHz`;

const removing = (kind: 'talkgroup' | 'receiveList' | 'scanList', id: string, label: string): Mend => ({
  label,
  edit: { name: 'remove', kind, ids: [id] } as Mend['edit'],
});

const setChannel = (label: string, channels: readonly Channel[], set: Partial<Channel>): Mend => ({
  label,
  edit: { name: 'change', changes: channels.map(({ id }) => ({ id, set })) },
});

const setScanList = (label: string, list: ScanList, set: Partial<ScanList>): Mend => ({
  label,
  edit: { name: 'change', kind: 'scanList', changes: [{ id: list.id, set }] },
});

const groupsById = remembered(
  (talkgroups: Plan['talkgroups']) => new Map(talkgroups.map((group) => [group.id, group])),
);
const membersOf = remembered((list: ReceiveList) => new Set(list.members));
/** The talkgroups that some receive list has. */
const listedIn = remembered(
  (lists: Plan['receiveLists']) => new Set<unknown>(lists.flatMap(({ members }) => members)),
);
/** Talkgroups with the number of one before them, each with that one. */
const doubledIn = remembered((talkgroups: Plan['talkgroups']) => {
  const doubled = new Map<Talkgroup, Talkgroup>();
  const first = {
    group: new Map<number, Talkgroup>(),
    private: new Map<number, Talkgroup>(),
    all: new Map<number, Talkgroup>(),
  };
  for (const group of talkgroups) {
    const other = first[group.call].get(group.number);
    if (other) doubled.set(group, other);
    else first[group.call].set(group.number, group);
  }
  return doubled;
});

/** The talkgroup that a channel calls and the receive list that it has, where that does not have it; null where it does. */
const missingFor = remembered((talkgroups: Plan['talkgroups']) =>
  remembered((receiveLists: Plan['receiveLists']) => {
    const groups = groupsById(talkgroups);
    const lists = new Map(receiveLists.map((list) => [list.id, list]));
    return rememberedAlong((channel: Channel) => {
      if (channel.mode !== 'DMR' || !channel.talkgroup || !channel.receiveList) return null;
      const group = groups.get(channel.talkgroup);
      const list = lists.get(channel.receiveList);
      return !group || !list || group.call !== 'group' || membersOf(list).has(group.id)
        ? null
        : { group, list };
    });
  }),
);

/** What is said of a channel's talkgroup beside its receive list. */
function* receiving(plan: Plan, counted: Counting): Generator<BesideFinding> {
  const missing = missingFor(plan.talkgroups)(plan.receiveLists)(plan.channels);
  for (const [at, gap] of missing.entries()) {
    if (!gap) continue;
    const { group, list } = gap;
    const channel = plan.channels[at]!;
    const about = { kind: 'channel' as const, id: channel.id };
    if (counted.full('group-not-in-list', about)) continue;
    yield say(
      'group-not-in-list',
      'hint',
      about,
      `“${called(channel)}” calls “${group.name}”, which its receive list “${list.name}” does not have: what comes back may not be heard.`,
      [
        {
          label: `Put “${group.name}” into “${list.name}”`,
          edit: {
            name: 'change',
            kind: 'receiveList',
            changes: [{ id: list.id, set: { members: [...list.members, group.id] } }],
          },
        },
      ],
    );
  }
}

/** What is said of scan lists and of who has them. */
function* scanning(plan: Plan, model: Model, counted: Counting): Generator<BesideFinding> {
  const has = model.scanLists;
  if (!has) return;
  const loud = plan.channels.filter(({ alwaysOn }) => alwaysOn);
  const used = new Set<unknown>(
    has.by === 'channel' ? plan.channels.map((one) => one.scanList) : plan.zones.map((one) => one.scanList),
  );
  const word = has.by === 'channel' ? 'channel' : (model.zones?.word ?? 'zone');
  for (const list of plan.scanLists) {
    const about = { kind: 'scanList' as const, id: list.id };
    const { members } = list;
    if (members.length === 0)
      yield say(
        'scan-list-empty',
        'caution',
        about,
        `“${list.name}” has no channel: its scan hears nothing.`,
        [removing('scanList', list.id, 'Remove the list')],
      );
    if (!used.has(list.id))
      yield say(
        'scan-list-unused',
        'caution',
        about,
        `Nobody scans “${list.name}”: no ${word} has it, so that its ${members.length === 1 ? 'channel is' : `${members.length} channels are`} never looked at.`,
        [
          ...(has.by === 'channel' && members.length > 0
            ? [
                setChannel(
                  'Give it to its own channels',
                  plan.channels.filter(({ id }) => members.includes(id)),
                  { scanList: list.id },
                ),
              ]
            : []),
          removing('scanList', list.id, 'Remove the list'),
        ],
      );
    for (const channel of loud)
      if (members.includes(channel.id))
        yield say(
          'scan-never-goes-on',
          'caution',
          about,
          `The scan of “${list.name}” stops on “${called(channel)}” and stays: that station never falls silent.`,
          [
            setScanList(`Take “${called(channel)}” out of the list`, list, {
              members: list.members.filter((id) => id !== channel.id),
            }),
          ],
        );
    if (list.answers === 'first' && list.first === null && has.answers.includes('first'))
      yield say(
        'scan-without-first',
        'caution',
        about,
        `“${list.name}” answers on its first priority, and has none: a press of the key goes nowhere that is sure.`,
        [setScanList('Answer where it stopped', list, { answers: 'heard' })],
      );
  }
  if (has.by !== 'channel') return;
  // A member whose own channel has no list: the scan goes over it, but nobody can begin one there.
  const inList = new Map<string, ScanList>();
  for (const list of plan.scanLists) for (const id of list.members) if (!inList.has(id)) inList.set(id, list);
  for (const channel of plan.channels) {
    const list = inList.get(channel.id);
    if (!list || channel.scanList) continue;
    const about = { kind: 'channel' as const, id: channel.id };
    if (counted.full('silent-scan', about)) continue;
    yield say(
      'silent-scan',
      'caution',
      about,
      `A scan begun on “${called(channel)}” is silent: the channel has no scan list, though “${list.name}” has the channel.`,
      [setChannel(`Give it “${list.name}”`, [channel], { scanList: list.id })],
    );
  }
}

/** Two of a kind with one name: on the radio nobody can tell them apart. */
function* alike(
  kind: 'receiveList' | 'scanList',
  lists: readonly (ReceiveList | ScanList)[],
  words: string,
): Generator<BesideFinding> {
  const seen = new Map<string, string>();
  const names = new Set(lists.map(({ name }) => name.trim().toLowerCase()));
  for (const { id, name } of lists) {
    const key = name.trim().toLowerCase();
    if (!seen.has(key)) {
      seen.set(key, id);
      continue;
    }
    let n = 2;
    while (names.has(`${key} ${n}`)) n++;
    const other = `${name.trim().slice(0, 28)} ${n}`;
    yield say(
      'alike-in-name',
      'caution',
      { kind, id },
      `Two ${words} are called “${name}”: on the radio nobody can tell which is which.`,
      [
        {
          label: `Call this one “${other}”`,
          edit: { name: 'change', kind, changes: [{ id, set: { name: other } }] } as Mend['edit'],
        },
      ],
    );
  }
}

/** What nobody uses, and what is there twice. */
function* spare(plan: Plan, counted: Counting): Generator<BesideFinding> {
  const usedLists = new Set<unknown>(plan.channels.map((one) => one.receiveList));
  const carried = new Set<unknown>(plan.channels.map((one) => one.talkgroup));
  const listed = listedIn(plan.receiveLists);
  const doubled = doubledIn(plan.talkgroups);
  for (const list of plan.receiveLists)
    if (!usedLists.has(list.id))
      yield say(
        'receive-list-unused',
        'hint',
        { kind: 'receiveList', id: list.id },
        `No channel has the receive list “${list.name}”: it changes nothing.`,
        [removing('receiveList', list.id, 'Remove the list')],
      );
  for (const group of plan.talkgroups) {
    // Of people nothing more is to be said.
    if (group.call === 'private' && !doubled.has(group)) continue;
    const about = { kind: 'talkgroup' as const, id: group.id };
    const other = doubled.get(group);
    if (other) {
      yield say(
        'talkgroup-doubled',
        'caution',
        about,
        `“${group.name}” and “${other.name}” are one: both have the number ${group.number}.`,
        [{ label: `Make one of them`, edit: merging(plan, group, other) }],
      );
      continue;
    }
    if (group.call === 'group' && !carried.has(group.id) && !counted.full('talkgroup-unused', about))
      yield say(
        'talkgroup-unused',
        'hint',
        about,
        listed.has(group.id)
          ? `No channel calls “${group.name}”: it is heard, and cannot be answered on its own talkgroup.`
          : `No channel calls “${group.name}” and no receive list has it: it takes room and does nothing.`,
        listed.has(group.id) ? [] : [removing('talkgroup', group.id, 'Remove it')],
      );
    if (group.encrypted && carried.has(group.id))
      yield say(
        'talkgroup-encrypted',
        'hint',
        about,
        `“${group.name}” is encrypted: a radio without its key hears noise there.`,
      );
  }
}

/** The edit that makes one talkgroup of two that have the same number. */
export function merging(plan: Plan, gone: Talkgroup, stays: Talkgroup): Mend['edit'] {
  const edits: PlainEdit[] = [];
  const channels = plan.channels.filter(({ talkgroup }) => talkgroup === gone.id);
  if (channels.length > 0)
    edits.push({
      name: 'change',
      changes: channels.map(({ id }) => ({ id, set: { talkgroup: stays.id } })),
    });
  const lists = plan.receiveLists.filter(({ members }) => members.includes(gone.id));
  if (lists.length > 0)
    edits.push({
      name: 'change',
      kind: 'receiveList',
      changes: lists.map(({ id, members }) => ({
        id,
        set: {
          members: [...new Set(members.map((member) => (member === gone.id ? stays.id : member)))],
        },
      })),
    });
  edits.push({ name: 'remove', kind: 'talkgroup', ids: [gone.id] });
  return { name: 'together', label: `Make one of “${gone.name}” and “${stays.name}”`, edits };
}

/** What has no room: the limits of the model, each counted. */
function* limits(plan: Plan, { digital, scanLists, name: model }: Model): Generator<BesideFinding> {
  const over = (kind: Kind, records: readonly { id: string }[], most: number, words: string) =>
    records.length > most
      ? [
          say(
            'too-many',
            'caution',
            { kind, id: records[most]!.id },
            `${records.length} ${words}, and the ${model} has room for ${most}: ${records.length - most} stay out.`,
          ),
        ]
      : [];
  if (digital) {
    const { talkgroups, receiveLists, people } = digital;
    const words = people.where === 'talkgroups' ? 'talkgroups and people' : 'talkgroups';
    yield* over('talkgroup', plan.talkgroups, talkgroups.count, words);
    yield* over('receiveList', plan.receiveLists, receiveLists.count, 'receive lists');
  }
  if (scanLists) yield* over('scanList', plan.scanLists, scanLists.count, 'scan lists');
}

/** Everything worth saying of how a plan is wired on a model, with the ways out. */
export function checkWiring(plan: Plan, model: Model): BesideFinding[] {
  const counted = counting();
  const found = [...limits(plan, model), ...scanning(plan, model, counted)];
  if (model.digital) {
    found.push(...receiving(plan, counted), ...spare(plan, counted));
    found.push(...alike('receiveList', plan.receiveLists, 'receive lists'));
  }
  if (model.scanLists) found.push(...alike('scanList', plan.scanLists, 'scan lists'));
  return [...found, ...counted.rest()];
}
