import {
  channelDefaults,
  LIST_LIMIT,
  NAME_LIMIT,
  parseCell,
  TAG_LIMITS,
  type CellContext,
  type ChannelSet,
  type Channel,
  type ChannelId,
  type Column,
  type NewChannel,
} from '../plan';
import { LISTEN_ONLY_SERVICES, parseLocator, transmitOf } from '../radio';
import { rememberedByText } from '../remember';
import type { Result } from '../result';
import { cutText, isWritten, keepableText } from '../text';
import type { PastedRow } from './headings';
import { receiveReader, textOf } from './row-cells';

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
  /** Rows that were understood beyond as many channels as were wanted. */
  beyond: number;
  /** Which slot and side a row names, by the channel that came of it. */
  slots: ReadonlyMap<ChannelId, { slot: number; list: number }>;
}

/** The cells that are read as they would be if somebody typed them. */
type Read = Exclude<Column, 'slot'>;

const tagsIn = (text: string) =>
  [...new Set(text.split(/[,;#]/).map((tag) => cutText(keepableText(tag).trim(), TAG_LIMITS.length)))]
    .filter((tag) => tag !== '')
    .slice(0, TAG_LIMITS.count);

const degrees = (text: string | undefined, most: number): number | undefined => {
  if (text === undefined || text === '') return undefined;
  const number = Number(text.includes(',') ? text.replace(',', '.') : text);
  // What has nothing but spaces counts as 0 too.
  return Math.abs(number) <= most && (number !== 0 || text.trim() !== '') ? number : undefined;
};

const short = (text: string | undefined, most: number) =>
  text === undefined || text === '' ? '' : cutText(keepableText(text).trim(), most);
const squareOf = rememberedByText((locator) => parseLocator(locator.trim().toUpperCase()));

/** What is said of the station in a row: who it is and where; null where nothing is. */
function sourceOf(
  line: number,
  { call, place, lat, lon, locator, service, directory, entry }: PastedRow['cells'],
): Channel['source'] {
  const square = locator === undefined ? null : squareOf(locator);
  const [north, east] = [degrees(lat, 90), degrees(lon, 180)];
  const at =
    north !== undefined && east !== undefined
      ? { lat: north, lon: east }
      : square?.ok
        ? square.value
        : undefined;
  const own = short(call, 16);
  const where = short(place, 60);
  const of = short(service, 40);
  const from = short(directory, 40);
  if (own === '' && where === '' && of === '' && from === '' && !at) return null;
  const source: NonNullable<Channel['source']> = {
    directory: from || 'file',
    entry: from ? short(entry, 80) : `line ${line}`,
    service: from ? of : of.toLowerCase() || 'amateur',
  };
  // One by one: to spread what may be missing makes an object of several.
  if (own !== '') source.call = own;
  if (where !== '') source.place = where;
  if (at) [source.lat, source.lon] = [at.lat, at.lon];
  return source;
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

const numberIn = (text: string) => (/^\d{1,4}$/.test(text.trim()) ? Number(text) : undefined);

/** The slot that a row names, and the side, counted from 1 as people see it; undefined where it names none that there is. */
function placeOf({ slot, side }: PastedRow['cells']): { slot: number; list: number } | undefined {
  if (slot === undefined || slot === '') return undefined;
  const at = numberIn(slot);
  const list = side?.trim() ? numberIn(side) : 1;
  return at === undefined || list === undefined || list < 1 || list > LIST_LIMIT
    ? undefined
    : { slot: at, list: list - 1 };
}

/** Whose cell it is of which no channel comes. */
const NOBODY = '' as ChannelId;

/** Reads the cells of each column; what stands there again is not read again. Transmit is read against receive, names are no two alike. */
function cellReaders(context: CellContext) {
  const bare = { rx: 0 };
  const of = (column: Read) => rememberedByText((text) => parseCell(column, text, bare, context));
  // There are few shifts, and many frequencies for each.
  const sides = rememberedByText((text) => transmitOf(text, context));
  const tx = (text: string, receive: number): Result<ChannelSet> => sides(text)(receive);
  const name = (text: string) => parseCell('name', text, bare, context);
  return {
    ...{ name, tx },
    rx: receiveReader((text) => parseCell('rx', text, bare, context)),
    ...{ access: of('access'), mode: of('mode'), power: of('power'), scan: of('scan') },
  };
}

/**
 * Makes channels of pasted rows, taken one by one; what is not understood keeps nothing else out. `makeId` gives each an id of its own.
 * Beyond `most` channels rows are read and counted, and none come of them.
 */
export function newRows(
  rows: Iterable<PastedRow>,
  context: CellContext,
  makeId: () => ChannelId,
  most = Infinity,
): NewRows {
  const slots = new Map<ChannelId, { slot: number; list: number }>();
  const made: NewRows = { channels: [], odd: [], refused: [], notes: [], beyond: 0, slots };
  const read = cellReaders(context);
  /** What a cell sets; undefined where it is empty or not understood, which is noted. */
  const said = (
    column: Read,
    text: string | undefined,
    reader: (text: string, receive: number) => Result<ChannelSet>,
    line: number,
    id: ChannelId,
    receive: number,
  ): ChannelSet | undefined => {
    if (text === undefined || (column !== 'access' && !isWritten(text))) return undefined;
    const parsed = reader(text, receive);
    if (!parsed.ok) {
      made.odd.push({ id, column, text, reason: parsed.reason });
      return undefined;
    }
    if (parsed.note !== undefined) made.notes.push(`Line ${line}: ${parsed.note}`);
    return parsed.value;
  };
  for (const { line, cells } of rows) {
    const rx = read.rx(cells);
    if (!rx.ok) {
      made.refused.push({ line, text: textOf(cells), reason: rx.reason });
      continue;
    }
    const receive = rx.value.rx!;
    const beyond = made.channels.length >= most;
    const id = beyond ? NOBODY : makeId();
    if (rx.note !== undefined && !beyond) made.notes.push(`Line ${line}: ${rx.note}`);
    const transmit = said('tx', cells.tx, read.tx, line, id, receive);
    // However long the name of a channel is that does not come.
    const name = beyond ? undefined : said('name', cells.name, read.name, line, id, receive)?.name;
    const access = said('access', cells.access, read.access, line, id, receive)?.access;
    const mode = said('mode', cells.mode, read.mode, line, id, receive)?.mode;
    const power = said('power', cells.power, read.power, line, id, receive)?.power;
    const scan = said('scan', cells.scan, read.scan, line, id, receive)?.scan;
    if (beyond) {
      made.beyond++;
      continue;
    }
    const usual = channelDefaults(receive);
    // One literal: fields that are put in one after the other make each channel an object of a kind of its own, ten times as slow.
    const fields: NewChannel = {
      name: name ?? usual.name,
      fitted: usual.fitted,
      rx: receive,
      tx: transmit?.tx === undefined ? usual.tx : transmit.tx,
      txFixed: transmit?.txFixed ?? usual.txFixed,
      access: access ?? usual.access,
      mode: mode ?? usual.mode,
      power: power ?? usual.power,
      scan: scan ?? usual.scan,
      alwaysOn: usual.alwaysOn,
      note: cells.note ? cutText(keepableText(cells.note).trim(), 500) : usual.note,
      source: sourceOf(line, cells),
      id,
    };
    // Veridon's own files say of each channel whether its transmit side is one of its own: their words are taken as they stand.
    const own = cells.fixed !== undefined;
    if (own) Object.assign(fields, asWritten(cells, fields));
    if (cells.tags) {
      const tags = tagsIn(cells.tags);
      if (tags.length > 0) fields.tags = tags;
    }
    // What is not the owner's to send on comes in as listen only, as from a directory.
    if (!own && fields.source && LISTEN_ONLY_SERVICES.some((service) => service === fields.source!.service))
      fields.tx = null;
    const place = placeOf(cells);
    if (place) slots.set(fields.id, place);
    made.channels.push(fields);
  }
  return made;
}
