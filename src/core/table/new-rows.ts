import {
  channelDefaults,
  LIST_LIMIT,
  NAME_LIMIT,
  parseCell,
  TAG_LIMITS,
  type CellContext,
  type Channel,
  type ChannelId,
  type Column,
  type NewChannel,
} from '../plan';
import { LISTEN_ONLY_SERVICES, parseLocator } from '../radio';
import { cutText, keepableText } from '../text';
import type { PastedField, PastedRow } from './pasted';

/** A cell of a pasted row that was not understood. */
export interface OddCell {
  id: ChannelId;
  column: Column;
  text: string;
  reason: string;
}

/** What pasted rows come to. */
export interface NewRows {
  channels: NewChannel[];
  /** Cells that were not understood, of channels that came about all the same. */
  odd: OddCell[];
  /** Rows of which no channel comes, since their receive frequency is not understood. */
  refused: { line: number; text: string; reason: string }[];
  notes: string[];
  /** Which slot and side a row names, by the channel that came of it. */
  slots: ReadonlyMap<ChannelId, { slot: number; list: number }>;
}

/** In which order cells are read: transmit is read against receive. */
const ORDER = [
  'rx',
  'tx',
  'name',
  'access',
  'mode',
  'power',
  'scan',
] as const satisfies readonly PastedField[];

const tagsIn = (text: string) =>
  [...new Set(text.split(/[,;#]/).map((tag) => cutText(keepableText(tag).trim(), TAG_LIMITS.length)))]
    .filter((tag) => tag !== '')
    .slice(0, TAG_LIMITS.count);

const degrees = (text: string | undefined, most: number): number | undefined => {
  const number = Number((text ?? '').trim().replace(',', '.'));
  return (text ?? '').trim() !== '' && Math.abs(number) <= most ? number : undefined;
};

/** What is said of the station in a row: who it is and where; null where nothing is. */
function sourceOf(
  line: number,
  { call, place, lat, lon, locator, service, directory, entry }: PastedRow['cells'],
): Channel['source'] {
  const square = locator === undefined ? null : parseLocator(locator.trim().toUpperCase());
  const [north, east] = [degrees(lat, 90), degrees(lon, 180)];
  const at =
    north !== undefined && east !== undefined
      ? { lat: north, lon: east }
      : square?.ok
        ? square.value
        : undefined;
  const said = [call, place, service, directory].some((text) => (text ?? '').trim() !== '');
  if (!said && !at) return null;
  const short = (text: string | undefined, most: number) => cutText(keepableText(text ?? '').trim(), most);
  const from = short(directory, 40);
  return {
    directory: from || 'file',
    entry: from ? short(entry, 80) : `line ${line}`,
    service: from ? short(service, 40) : short(service, 40).toLowerCase() || 'amateur',
    ...(short(call, 16) && { call: short(call, 16) }),
    ...(short(place, 60) && { place: short(place, 60) }),
    ...at,
  };
}

const isYes = (text: string | undefined) => /^(yes|y|1|true|on)$/i.test((text ?? '').trim());

/** What a row of Veridon's own says in words that are taken as they stand. */
const asWritten = (
  { name, note, fixed, always, satellite }: PastedRow['cells'],
  { rx, tx }: Pick<Channel, 'rx' | 'tx'>,
): Partial<Channel> => ({
  name: cutText(keepableText(name ?? '').trim(), NAME_LIMIT),
  note: cutText(keepableText(note ?? ''), 500),
  txFixed: isYes(fixed) && tx !== null && tx !== rx,
  alwaysOn: isYes(always),
  ...(isYes(satellite) && { satellite: true }),
});

/** The slot that a row names, and the side, counted from 1 as people see it; undefined where it names none that there is. */
function placeOf({ slot, side }: PastedRow['cells']): { slot: number; list: number } | undefined {
  const number = (text: string) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : undefined);
  const at = number(slot ?? '');
  const list = side?.trim() ? number(side) : 1;
  return at === undefined || list === undefined || list < 1 || list > LIST_LIMIT
    ? undefined
    : { slot: at, list: list - 1 };
}

/** Of how many rows one tells how far it is. */
const TELLS_EVERY = 2000;

/**
 * Makes channels of pasted rows; what is not understood keeps nothing else out. `makeId` gives each an id of its own; `soFar` is told how
 * much is done, 0 to 1.
 */
export function newRows(
  rows: readonly PastedRow[],
  context: CellContext,
  makeId: () => ChannelId,
  soFar?: (share: number) => void,
): NewRows {
  const slots = new Map<ChannelId, { slot: number; list: number }>();
  const made: NewRows = { channels: [], odd: [], refused: [], notes: [], slots };
  for (const [at, { line, cells }] of rows.entries()) {
    if (soFar && at % TELLS_EVERY === 0) soFar(at / rows.length);
    const rx = parseCell('rx', cells.rx ?? '', { rx: 0 }, context);
    if (!rx.ok) {
      const text = Object.values(cells).filter(Boolean).join(' ');
      made.refused.push({ line, text, reason: rx.reason });
      continue;
    }
    const id = makeId();
    let fields = channelDefaults(rx.value.rx!);
    for (const column of ORDER) {
      const text = cells[column];
      if (text === undefined || (text.trim() === '' && column !== 'access')) continue;
      const parsed = parseCell(column, text, fields, context);
      if (!parsed.ok) made.odd.push({ id, column, text, reason: parsed.reason });
      else {
        fields = { ...fields, ...parsed.value };
        if (parsed.note !== undefined) made.notes.push(`Line ${line}: ${parsed.note}`);
      }
    }
    // Veridon's own files say of each channel whether its transmit side is one of its own: their words are taken as they stand.
    const own = cells.fixed !== undefined;
    if (own) fields = { ...fields, ...asWritten(cells, fields) };
    else if (cells.note) fields.note = cutText(keepableText(cells.note).trim(), 500);
    const tags = tagsIn(cells.tags ?? '');
    if (tags.length > 0) fields.tags = tags;
    const source = sourceOf(line, cells);
    if (source) {
      fields = { ...fields, source };
      // What is not the owner's to send on comes in as listen only, as from a directory.
      if (!own && LISTEN_ONLY_SERVICES.some((service) => service === source.service)) fields.tx = null;
    }
    const place = placeOf(cells);
    if (place) slots.set(id, place);
    made.channels.push({ ...fields, id });
  }
  return made;
}
