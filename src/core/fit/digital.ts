import type { Content, FittedDigital, FittedTalkgroup, Model } from '../models';
import {
  abbreviationsOf,
  ANSWER_WORDS,
  fitName,
  LEVELS,
  POLITENESS_WORDS,
  type Abbreviations,
  type Channel,
  type ChannelId,
  type Plan,
  type ReceiveList,
  type Talkgroup,
} from '../plan';
import { hasTalkgroups } from '../radio';
import { remembered, rememberedAlong } from '../remember';
import type { FitBeside, FitChange } from './fitted';

/** What digital channels refer to, as a radio numbers it: talkgroups, receive lists, scan lists. */

/** The radio's numbers of what a plan has, by id; what it has no room for is not there. */
export interface Numbers {
  talkgroup: ReadonlyMap<string, number>;
  receiveList: ReadonlyMap<string, number>;
  scanList: ReadonlyMap<string, number>;
}

const NOBODY: ReadonlyMap<string, number> = new Map();

/** The places of records from 1 on. The very same for the same list, so that what was worked out with it stands. */
const placesIn = remembered(
  (records: readonly { id: string }[]): ReadonlyMap<string, number> =>
    new Map(records.map(({ id }, at) => [id, at + 1])),
);
const firstOf = remembered(
  (_records: readonly { id: string }[]) => new Map<number, ReadonlyMap<string, number>>(),
);

/** The first of some records, each with its place from 1 on. */
function numbered(records: readonly { id: string }[], count: number): ReadonlyMap<string, number> {
  if (count === 0 || records.length === 0) return NOBODY;
  if (records.length <= count) return placesIn(records);
  const known = firstOf(records);
  let first = known.get(count);
  if (!first) known.set(count, (first = placesIn(records.slice(0, count))));
  return first;
}

/** The name of a record on the display of a model, so many characters long; not worked out again while the record stays as it is. */
export const shownName = remembered((model: Model) =>
  remembered((abbreviations: Abbreviations) => {
    const known = new WeakMap<object, string>();
    return (record: { readonly name: string }, length: number): string => {
      let text = known.get(record);
      if (text === undefined) {
        text = fitName(record.name, { length, characters: model.names.characters }, abbreviations).text;
        known.set(record, text);
      }
      return text;
    };
  }),
);

const calledIn = remembered(
  (channels: readonly Channel[]) =>
    new Set(channels.flatMap(({ mode, talkgroup }) => (hasTalkgroups(mode) && talkgroup ? [talkgroup] : []))),
);
const listedIn = remembered(
  (lists: readonly ReceiveList[]) => new Set(lists.flatMap(({ members }) => members)),
);

type Ids = ReadonlySet<string>;
const NONE: Ids = new Set();
const lastOut = remembered((_model: Model) =>
  remembered((_talkgroups: readonly Talkgroup[]) => ({ ids: NONE })),
);

/**
 * The talkgroups and people for which a model has no room. What matters least falls out: people, then talkgroups that nothing refers to,
 * then those that only receive lists have; of those that channels call none, while anything else is there. Of alike ones the last.
 */
function withoutRoom({ talkgroups, channels, receiveLists }: Plan, model: Model): Ids {
  const has = model.digital?.talkgroups;
  if (!has || talkgroups.length <= has.count) return NONE;
  const [called, listed] = [calledIn(channels), listedIn(receiveLists)];
  const worth = ({ id, call }: Talkgroup) =>
    called.has(id) ? 3 : listed.has(id) ? 2 : call === 'private' ? 0 : 1;
  const out = talkgroups
    .filter(({ call }) => has.calls.includes(call))
    .sort((a, b) => worth(b) - worth(a))
    .slice(has.count)
    .map(({ id }) => id);
  const last = lastOut(model)(talkgroups);
  if (out.length !== last.ids.size || !out.every((id) => last.ids.has(id))) last.ids = new Set(out);
  return last.ids;
}

/** The talkgroups that a model holds: of the kinds of call that it knows, those for which it has room. */
const talkgroupsHeld = remembered((model: Model) =>
  remembered((abbreviations: Abbreviations) =>
    remembered((talkgroups: readonly Talkgroup[]) =>
      remembered((noRoom: Ids) => {
        const has = model.digital?.talkgroups;
        const besides: FitBeside[] = [];
        const rows: FittedTalkgroup[] = [];
        const numbers = new Map<string, number>();
        const shown = shownName(model)(abbreviations);
        for (const group of talkgroups) {
          const { id, name, number: address, call } = group;
          const leave = (because: string) =>
            besides.push({ kind: 'talkgroup', id, text: 'Left out', because });
          if (!has) leave('This radio has no talkgroups');
          else if (!has.calls.includes(call))
            leave(`This radio knows no ${call === 'private' ? 'private calls' : `call to ${call}`}`);
          else if (noRoom.has(id))
            leave(
              `This radio has room for ${has.count} ${
                model.digital!.people.where === 'talkgroups' ? 'talkgroups and people' : 'talkgroups'
              }`,
            );
          else {
            const text = shown(group, has.name);
            if (text.toLowerCase() !== name.trim().toLowerCase())
              besides.push({
                kind: 'talkgroup',
                id,
                text: `Named ${text}`,
                because: `${has.name} characters on this display`,
              });
            rows.push({ number: rows.length + 1, name: text, address, call });
            numbers.set(id, rows.length);
          }
        }
        return { rows, numbers, besides };
      }),
    ),
  ),
);

/** What a model makes of a plan's talkgroups. */
export const fitTalkgroups = (plan: Plan, model: Model, abbreviations: Abbreviations) =>
  talkgroupsHeld(model)(abbreviations)(plan.talkgroups)(withoutRoom(plan, model));

/** The radio's numbers of all that channels and zones of a plan refer to. */
export function numbersIn(plan: Plan, model: Model, abbreviations: Abbreviations): Numbers {
  return {
    talkgroup: fitTalkgroups(plan, model, abbreviations).numbers,
    receiveList: numbered(plan.receiveLists, model.digital?.receiveLists.count ?? 0),
    scanList: numbered(plan.scanLists, model.scanLists?.count ?? 0),
  };
}

/** The lists of a plan by the radio's numbers. */
export type RecordsHeld = Record<
  'receiveList' | 'scanList',
  { ids: ReadonlyMap<number, string>; names: ReadonlyMap<number, string> }
>;

/** The lists that the numbers of a radio stand for after this plan was written to it. */
export function recordsHeld(plan: Plan, model: Model): RecordsHeld {
  const { receiveList, scanList } = numbersIn(plan, model, abbreviationsOf(plan));
  const held = (numbers: ReadonlyMap<string, number>, records: readonly { id: string; name: string }[]) => {
    const there = records.flatMap(({ id, name }) => {
      const number = numbers.get(id);
      return number === undefined ? [] : [{ number, id, name }];
    });
    return {
      ids: new Map(there.map(({ number, id }) => [number, id])),
      names: new Map(there.map(({ number, name }) => [number, name])),
    };
  };
  return {
    receiveList: held(receiveList, plan.receiveLists),
    scanList: held(scanList, plan.scanLists),
  };
}

/** What a channel refers to, by the radio's numbers. */
export interface Links {
  talkgroup: number | null;
  receiveList: number | null;
  scanList: number | null;
}

/** Of a channel that refers to nothing, or on a radio that numbers nothing. */
export const NOTHING_LINKED: Links = { talkgroup: null, receiveList: null, scanList: null };

/** The radio's numbers of what a channel refers to. */
export function linksOf(channel: Channel, numbers: Numbers): Links {
  const { talkgroup, receiveList, scanList } = channel;
  if (!talkgroup && !receiveList && !scanList) return NOTHING_LINKED;
  return {
    talkgroup: (talkgroup && numbers.talkgroup.get(talkgroup)) || null,
    receiveList: (receiveList && numbers.receiveList.get(receiveList)) || null,
    scanList: (scanList && numbers.scanList.get(scanList)) || null,
  };
}

const along = remembered((talkgroup: Numbers['talkgroup']) =>
  remembered((receiveList: Numbers['receiveList']) =>
    remembered((scanList: Numbers['scanList']) =>
      rememberedAlong((channel: Channel) => linksOf(channel, { talkgroup, receiveList, scanList })),
    ),
  ),
);

/** The radio's numbers of what channels refer to, in their order; what did not change is not looked up again. */
export const linksAlong = (channels: readonly Channel[], numbers: Numbers | null): readonly Links[] | null =>
  numbers && along(numbers.talkgroup)(numbers.receiveList)(numbers.scanList)(channels);

export const sameLinks = (one: Links, other: Links): boolean =>
  one === other ||
  (one.talkgroup === other.talkgroup &&
    one.receiveList === other.receiveList &&
    one.scanList === other.scanList);

/** When a channel may send, on a radio that knows those ways: as wanted, or the politest that it has. */
export function heldPoliteness(
  { politeness }: Pick<Channel, 'politeness'>,
  { politeness: knows, levels }: NonNullable<Model['digital']>,
): Pick<FittedDigital, 'politeness' | 'level'> {
  const wanted = politeness?.to ?? 'impolite';
  const way = knows.includes(wanted) ? wanted : knows[knows.length - 1]!;
  if (way !== 'all' || !levels) return { politeness: way, level: null };
  const level = politeness?.to === 'all' ? politeness.level : levels.from;
  return { politeness: way, level: Math.min(levels.to, Math.max(levels.from, level)) };
}

/** What of when it may send a radio has otherwise than the plan, in words; null where it has it as it is wanted. */
export function politeOtherwise(
  { politeness }: Pick<Channel, 'politeness'>,
  held: FittedDigital['politeness'],
  { levels }: NonNullable<Model['digital']>,
): Pick<FitChange, 'text' | 'because'> | null {
  const wanted = politeness?.to ?? 'impolite';
  if (wanted !== held)
    return {
      text: `Sends as ${POLITENESS_WORDS[held]}`,
      because: `This radio cannot be ${POLITENESS_WORDS[wanted]}`,
    };
  // The usual level is nobody's particular wish: a plan made of such a radio has it.
  return politeness?.to === 'all' && !levels && politeness.level !== LEVELS.usual
    ? {
        text: `Busy from a level of its own on, not from ${politeness.level} dBm`,
        because: 'This radio takes no level for a channel',
      }
    : null;
}

/** Where a channel is in the radio. */
interface Place {
  list: number;
  slot: number;
}

type Say = (kind: 'receiveList' | 'scanList', id: string, text: string, because: string) => void;
interface Held {
  id: string;
  number: number;
  name: string;
}

/** The receive lists that have room, with the talkgroups that the radio holds of them. */
export function fitReceiveLists(
  lists: readonly ReceiveList[],
  held: readonly Held[],
  model: Model,
  numbers: Numbers,
  say: Say,
): Content['receiveLists'] {
  const most = model.digital?.receiveLists.members ?? 0;
  return held.map(({ id, number, name }, at) => {
    const members = lists[at]!.members.flatMap((member) => numbers.talkgroup.get(member) ?? []);
    if (members.length > most)
      say(
        'receiveList',
        id,
        `Holds ${most} of its ${members.length} talkgroups`,
        `A receive list of this radio has ${most}`,
      );
    return { number, name, members: members.slice(0, most) };
  });
}

/** The scan lists that have room, with the channels that the radio holds of them. */
export function fitScanLists(
  plan: Plan,
  held: readonly Held[],
  model: Model,
  places: ReadonlyMap<ChannelId, Place>,
  say: Say,
): Content['scanLists'] {
  const has = model.scanLists;
  if (!has) return [];
  const slotOf = (id: ChannelId | null) => (id && places.get(id)?.slot) || null;
  return held.map(({ id, number, name }, at) => {
    const list = plan.scanLists[at]!;
    const slots = list.members.flatMap((member) => places.get(member)?.slot ?? []);
    if (slots.length > has.members)
      say(
        'scanList',
        id,
        `Holds ${has.members} of its ${slots.length} channels`,
        `A scan list of this radio has ${has.members}`,
      );
    if (list.second && !has.second)
      say('scanList', id, 'Has no second priority', 'This radio has one priority channel a list');
    const answers = has.answers.includes(list.answers) ? list.answers : has.answers[0]!;
    if (answers !== list.answers)
      say('scanList', id, `Answers ${ANSWER_WORDS[answers]}`, 'This radio answers nowhere else');
    return {
      ...{ number, name, slots: slots.slice(0, has.members) },
      first: slotOf(list.first),
      second: has.second ? slotOf(list.second) : null,
      ...{ answers, startsItself: list.startsItself },
    };
  });
}

/** What of a channel's references the radio has no room for. */
export function lostLinks(channel: Channel, links: Links, model: Model): FitChange[] {
  const lost: FitChange[] = [];
  const say = (what: FitChange['what'], text: string, because: string) =>
    lost.push({ id: channel.id, what, text, because });
  if (model.digital && hasTalkgroups(channel.mode)) {
    if (channel.talkgroup && links.talkgroup === null)
      say('digital', 'Calls no talkgroup', 'This radio does not hold its talkgroup');
    if (channel.receiveList && links.receiveList === null)
      say('digital', 'Without its receive list', `This radio has ${model.digital.receiveLists.count}`);
  }
  if (model.scanLists?.by === 'channel' && channel.scanList && links.scanList === null)
    say('scan list', 'Without its scan list', `This radio has ${model.scanLists.count}`);
  return lost;
}
