import { formatAccess, formatFrequency, parseFrequency } from '../radio';
import type { Channel, NewChannel } from '../plan';

/** A channel as it goes out: with its slot where it has one. */
export type Outgoing = NewChannel & Partial<Pick<Channel, 'slot' | 'list'>>;

/** A column of what goes out: its heading, which is read again, and what a channel has in it. */
interface OutColumn {
  heading: string;
  /** A number where a spreadsheet may count with it; null where there is nothing. */
  cell: (channel: Outgoing) => string | number | null;
  /** The number as text, where that is not its plain figures. */
  text?: (channel: Outgoing) => string;
  /** How many decimals a number is shown with in a spreadsheet. */
  decimals?: number;
  /** Stands there only where a channel has something in it. */
  optional?: true;
}

const yesNo = (is: boolean) => (is ? 'yes' : 'no');

/** A frequency in MHz: as a number where that reads as this frequency and no other; in the airband it may be a channel's name. */
function megahertz(hz: number): number | string {
  const number = hz / 1e6;
  const read = parseFrequency(`${numberText(number)} MHz`);
  return read.ok && read.value === hz ? number : formatFrequency(hz);
}

/** What of a channel goes out in rows and fields: all of it but its id and the names fitted by hand. */
export const OUT_COLUMNS: readonly OutColumn[] = [
  { heading: 'Slot', cell: ({ slot }) => slot ?? null, optional: true },
  { heading: 'Side', cell: ({ list }) => (list ? list + 1 : null), optional: true },
  { heading: 'Name', cell: ({ name }) => name },
  {
    heading: 'Receive MHz',
    cell: ({ rx }) => megahertz(rx),
    text: ({ rx }) => formatFrequency(rx),
    decimals: 4,
  },
  {
    heading: 'Transmit MHz',
    cell: ({ tx }) => (tx === null ? 'listen only' : megahertz(tx)),
    text: ({ tx }) => (tx === null ? '' : formatFrequency(tx)),
    decimals: 4,
  },
  { heading: 'Access', cell: ({ access }) => formatAccess(access) || 'open' },
  { heading: 'Mode', cell: ({ mode }) => mode },
  { heading: 'Power W', cell: ({ power }) => power / 1000 },
  { heading: 'Scan', cell: ({ scan }) => yesNo(scan) },
  { heading: 'Call', cell: ({ source }) => source?.call ?? '', optional: true },
  { heading: 'Place', cell: ({ source }) => source?.place ?? '', optional: true },
  { heading: 'Latitude', cell: ({ source }) => source?.lat ?? null, decimals: 5, optional: true },
  { heading: 'Longitude', cell: ({ source }) => source?.lon ?? null, decimals: 5, optional: true },
  { heading: 'Service', cell: ({ source }) => source?.service ?? '', optional: true },
  { heading: 'Tags', cell: ({ tags }) => (tags ?? []).join(', '), optional: true },
  { heading: 'Note', cell: ({ note }) => note, optional: true },
  { heading: 'Always on', cell: ({ alwaysOn }) => (alwaysOn ? 'yes' : null), optional: true },
  { heading: 'Satellite', cell: ({ satellite }) => (satellite ? 'yes' : null), optional: true },
  { heading: 'Own transmit', cell: ({ txFixed }) => yesNo(txFixed) },
  { heading: 'Directory', cell: ({ source }) => source?.directory ?? '', optional: true },
  { heading: 'Entry', cell: ({ source }) => source?.entry ?? '', optional: true },
];

/** The columns that these channels need. */
export const columnsOf = (channels: readonly Outgoing[]): readonly OutColumn[] =>
  OUT_COLUMNS.filter(
    ({ optional, cell }) =>
      !optional ||
      channels.some((channel) => {
        const has = cell(channel);
        return has !== null && has !== '';
      }),
  );

/**
 * A number as text that reads as nothing else: never with three decimals alone, which may part thousands, nor with an exponent.
 *
 * @example numberText(1.25) // '1.25'
 * @example numberText(1.234) // '1.2340'
 */
export function numberText(number: number): string {
  const text = /e/.test(String(number)) ? number.toFixed(12).replace(/0+$/, '') : String(number);
  return /\.\d{3}$/.test(text) ? `${text}0` : text.replace(/\.$/, '');
}

/** What stands in a column in words; empty where there is nothing. */
export function wordsIn({ cell, text }: OutColumn, channel: Outgoing): string {
  const has = cell(channel);
  return typeof has === 'number' ? (text?.(channel) ?? numberText(has)) : (has ?? '');
}

/** What a channel says in words, by heading; what it has nothing of is left out. */
export const fieldsOf = (channel: Outgoing): Record<string, string> =>
  Object.fromEntries(
    OUT_COLUMNS.map((column) => [column.heading, wordsIn(column, channel)] as const).filter(
      ([, words]) => words !== '',
    ),
  );
