import equal from 'fast-deep-equal';
import type { Content, FittedScanList, FittedTalkgroup } from '../models';
import { ANSWER_WORDS, slotText } from '../plan';
import { inAndOut, named, renamed, type Kind } from './kind';

/** How talkgroups, receive lists and scan lists are told of. */

const CALLED: Record<FittedTalkgroup['call'], string> = { group: 'group', private: 'person', all: 'all' };

const called = ({ call, address }: FittedTalkgroup) => `${CALLED[call]} ${address}`;

export const talkgroups: Kind<FittedTalkgroup> = {
  of: ({ talkgroups: all = [] }) => all.filter(({ call }) => call !== 'private'),
  title: ({ number }) => `Talkgroup ${number}`,
  whole: (one) => named(one.name, called(one)),
  differing: (was, is) => [
    ...renamed(was, is),
    ...(called(was) === called(is) ? [] : [`${called(is)}, was ${called(was)}`]),
  ],
};

/** The people among the talkgroups. */
export const people: Kind<FittedTalkgroup> = {
  ...talkgroups,
  of: ({ talkgroups: all = [] }) => all.filter(({ call }) => call === 'private'),
  title: ({ number }) => `Person ${number}`,
};

/** What comes to a list that has an order, and goes from it; or that it is in another order. */
export const reordered = (was: readonly number[], is: readonly number[]): string[] => {
  const change = inAndOut(was, is);
  return change.length === 0 && !equal(was, is) ? ['in another order'] : change;
};

const groups = (n: number) => (n === 1 ? '1 talkgroup' : `${n} talkgroups`);

export const receiveLists: Kind<Content['receiveLists'][number]> = {
  of: (content) => content.receiveLists ?? [],
  title: ({ number }) => `Receive list ${number}`,
  whole: ({ name, members }) => named(name, groups(members.length)),
  differing: (was, is) => [...renamed(was, is), ...reordered(was.members, is.members)],
};

const slot = (at: number | null) => (at === null ? 'none' : slotText(at));
const SCAN_FIELDS: readonly [string, (list: FittedScanList) => string][] = [
  ['first priority', ({ first }) => slot(first)],
  ['second priority', ({ second }) => slot(second)],
  ['answers', ({ answers }) => ANSWER_WORDS[answers]],
  ['starts', ({ startsItself }) => (startsItself ? 'by itself' : 'by a key')],
];

export const scanLists: Kind<FittedScanList> = {
  of: (content) => content.scanLists ?? [],
  title: ({ number }) => `Scan list ${number}`,
  whole: ({ name, slots }) => named(name, slots.length === 1 ? '1 channel' : `${slots.length} channels`),
  differing: (was, is) => [
    ...renamed(was, is),
    ...reordered(was.slots, is.slots),
    ...SCAN_FIELDS.flatMap(([word, of]) => (of(was) === of(is) ? [] : [`${word} ${of(is)}, was ${of(was)}`])),
  ],
};

/** A zone that has an order, a knob, or a scan list of its own: what of these is otherwise. */
export function zoneDiffers(
  was: Content['zones'][number],
  is: Content['zones'][number],
  ordered: boolean,
): string[] {
  const list = (one: Content['zones'][number]) =>
    one.scanList ? `scan list ${one.scanList}` : 'no scan list';
  const lists = list(was) === list(is) ? [] : [`${list(is)}, was ${list(was)}`];
  const members = ordered ? reordered(was.slots, is.slots) : inAndOut(was.slots, is.slots);
  const knob = members.length === 0 && !equal(was.knob, is.knob) ? ['other places on the knob'] : [];
  return [...members, ...knob, ...lists];
}
