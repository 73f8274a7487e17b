import type { Model } from '../models';
import type { Channel, Plan, PlainEdit, ReceiveList, ScanList, Talkgroup } from '../plan';
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

/** What is said of a channel's talkgroup beside its receive list. */
function* receiving(plan: Plan): Generator<BesideFinding> {
  const groups = new Map(plan.talkgroups.map((group) => [group.id, group]));
  const lists = new Map(plan.receiveLists.map((list) => [list.id, new Set(list.members)]));
  const names = new Map(plan.receiveLists.map((list) => [list.id, list]));
  for (const channel of plan.channels) {
    if (channel.mode !== 'DMR' || !channel.talkgroup || !channel.receiveList) continue;
    const group = groups.get(channel.talkgroup);
    const list = names.get(channel.receiveList);
    if (!group || !list || group.call !== 'group' || lists.get(list.id)!.has(group.id)) continue;
    yield say(
      'group-not-in-list',
      'hint',
      { kind: 'channel', id: channel.id },
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
function* scanning(plan: Plan, model: Model): Generator<BesideFinding> {
  const has = model.scanLists;
  if (!has) return;
  const channels = new Map(plan.channels.map((channel) => [channel.id, channel]));
  const used = new Set<unknown>(
    has.by === 'channel' ? plan.channels.map((one) => one.scanList) : plan.zones.map((one) => one.scanList),
  );
  const word = has.by === 'channel' ? 'channel' : (model.zones?.word ?? 'zone');
  for (const list of plan.scanLists) {
    const about = { kind: 'scanList' as const, id: list.id };
    const members = list.members.flatMap((id) => channels.get(id) ?? []);
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
            ? [setChannel('Give it to its own channels', members, { scanList: list.id })]
            : []),
          removing('scanList', list.id, 'Remove the list'),
        ],
      );
    for (const channel of members)
      if (channel.alwaysOn)
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
    yield say(
      'silent-scan',
      'caution',
      { kind: 'channel', id: channel.id },
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
function* spare(plan: Plan): Generator<BesideFinding> {
  const usedLists = new Set<unknown>(plan.channels.map((one) => one.receiveList));
  const carried = new Set<unknown>(plan.channels.map((one) => one.talkgroup));
  const listed = new Set<unknown>(plan.receiveLists.flatMap(({ members }) => members));
  for (const list of plan.receiveLists)
    if (!usedLists.has(list.id))
      yield say(
        'receive-list-unused',
        'hint',
        { kind: 'receiveList', id: list.id },
        `No channel has the receive list “${list.name}”: it changes nothing.`,
        [removing('receiveList', list.id, 'Remove the list')],
      );
  const first = new Map<string, Talkgroup>();
  for (const group of plan.talkgroups) {
    const about = { kind: 'talkgroup' as const, id: group.id };
    const key = `${group.call} ${group.number}`;
    const other = first.get(key);
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
    first.set(key, group);
    if (group.call === 'group' && !carried.has(group.id))
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
  const found = [...limits(plan, model), ...scanning(plan, model)];
  if (model.digital) {
    found.push(...receiving(plan), ...spare(plan));
    found.push(...alike('receiveList', plan.receiveLists, 'receive lists'));
  }
  if (model.scanLists) found.push(...alike('scanList', plan.scanLists, 'scan lists'));
  return found;
}
