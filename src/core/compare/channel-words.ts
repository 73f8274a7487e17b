import equal from 'fast-deep-equal';
import type { Content, FittedChannel } from '../models';
import { POLITENESS_WORDS } from '../plan';
import { formatAccess, formatFrequency, formatPower } from '../radio';

/** The records that channels refer to by number. Where a record is unknown, its number is shown. */
export type Referred = Partial<Pick<Content, 'talkgroups' | 'receiveLists' | 'scanLists'>>;

const nameOf = (
  records: readonly { number: number; name: string }[] | undefined,
  number: number | null | undefined,
) => (number ? records?.find((one) => one.number === number)?.name || String(number) : 'none');

/** The fields of a channel: the label and the value in words. */
const FIELDS: readonly [word: string, of: (channel: FittedChannel, lists: Referred) => string][] = [
  ['receive', ({ rx }) => formatFrequency(rx)],
  [
    'transmit',
    ({ tx, rx }) => (tx === null ? 'listen only' : tx === rx ? 'as receive' : formatFrequency(tx)),
  ],
  ['frequencies', ({ split }) => (split ? 'stored as split' : 'stored with the shift')],
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
  // Last: the row already shows the name.
  ['name', ({ name }) => name.trim() || 'none'],
];

/**
 * The fields in which a channel differs, in words: `power 1 W, was 4 W; talkgroup Isles, was none`. The two sides may number their
 * records differently: a talkgroup with the same name and another number is shown by its number.
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
