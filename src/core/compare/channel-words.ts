import equal from 'fast-deep-equal';
import type { Content, FittedChannel } from '../models';
import { POLITENESS_WORDS } from '../plan';
import { formatAccess, formatFrequency, formatPower } from '../radio';

/** What channels refer to by number; empty where nothing is known of it, and the numbers are said. */
export type Referred = Partial<Pick<Content, 'talkgroups' | 'receiveLists' | 'scanLists'>>;

const nameOf = (
  records: readonly { number: number; name: string }[] | undefined,
  number: number | null | undefined,
) => (number ? records?.find((one) => one.number === number)?.name || String(number) : 'none');

/** What a channel of a radio is, field by field: how it is called, and how it stands. */
const FIELDS: readonly [word: string, of: (channel: FittedChannel, lists: Referred) => string][] = [
  ['receive', ({ rx }) => formatFrequency(rx)],
  [
    'transmit',
    ({ tx, rx }) => (tx === null ? 'listen only' : tx === rx ? 'as receive' : formatFrequency(tx)),
  ],
  ['frequencies', ({ split }) => (split ? 'kept as two' : 'kept with the shift')],
  [
    'access',
    ({ send, expect, digital }) =>
      digital ? '' : formatAccess({ kind: 'analogue', send, expect }) || 'open',
  ],
  ['mode', ({ mode }) => mode],
  ['colour code', ({ digital }) => String(digital?.colourCode ?? 'none')],
  ['time slot', ({ digital }) => String(digital?.timeSlot ?? 'none')],
  ['talkgroup', ({ digital }, { talkgroups }) => nameOf(talkgroups, digital?.talkgroup)],
  ['receive list', ({ digital }, { receiveLists }) => nameOf(receiveLists, digital?.receiveList)],
  ['may send', ({ digital }) => (digital ? POLITENESS_WORDS[digital.politeness] : '')],
  ['busy from', ({ digital }) => (digital?.level ? `${digital.level} dBm` : 'its own level')],
  ['scan list', ({ scanList }, { scanLists }) => nameOf(scanLists, scanList)],
  ['power', ({ power }) => formatPower(power)],
  ['scan', ({ scan }) => (scan ? 'in' : 'out')],
  // Last, since it stands beside the words.
  ['name', ({ name }) => name.trim() || 'none'],
];

/**
 * In what a channel differs from what it was, in words: `power 1 W, was 4 W; talkgroup Isles, was none`. What both sides refer to may be
 * numbered otherwise; a talkgroup of another number and the same name says its number.
 */
export function differsInWords(
  was: FittedChannel,
  is: FittedChannel,
  lists: { was: Referred; is: Referred } = { was: {}, is: {} },
): string {
  const said = FIELDS.flatMap(([word, of]) => {
    const [before, after] = [of(was, lists.was), of(is, lists.is)];
    return before === after ? [] : [`${word} ${after || 'none'}, was ${before || 'none'}`];
  });
  const moved = REFERENCES.flatMap(([word, of]) =>
    equal(of(was), of(is)) || said.some((one) => one.startsWith(`${word} `))
      ? []
      : [`${word} number ${of(is) ?? 'none'}, was ${of(was) ?? 'none'}`],
  );
  return [...said, ...moved].join('; ');
}

const REFERENCES: readonly [word: string, of: (channel: FittedChannel) => number | null | undefined][] = [
  ['talkgroup', ({ digital }) => digital?.talkgroup],
  ['receive list', ({ digital }) => digital?.receiveList],
  ['scan list', ({ scanList }) => scanList],
];
