import { fail, ok, type Result } from '../result';
import {
  formatAccess,
  formatFrequency,
  formatPower,
  formatTransmit,
  MODES,
  parseAccess,
  parseFrequency,
  parseMode,
  parsePower,
  parseTransmit,
  plain,
  type Range,
  type Region,
} from '../radio';
import { lengthOf, quoted } from '../text';
import { NAME_LIMIT, type MarkedColumn } from './channel';
import type { Channel, ChannelFields } from './channel.schema';
import type { ChannelSet } from './edits/change.schema';

/** The columns of the channel table, in order; each is one thing that a person types. */
export const COLUMNS = ['slot', 'name', 'rx', 'tx', 'access', 'mode', 'power', 'scan'] as const;
export type Column = (typeof COLUMNS)[number];

/** What cells are read against. */
export interface CellContext {
  region: Region;
  /** The ranges that the model receives, Hz. */
  bands?: readonly Range[];
  /** The model's powers with their labels, so that `high` and `low` can be typed. */
  powers?: readonly { label: string; milliwatts: number }[];
}

/** A cell as text in entry notation: what the editor opens with and what is copied. `parseCell` reads it back. */
export function cellText(channel: Channel, column: Column): string {
  switch (column) {
    case 'slot':
      return String(channel.slot);
    case 'name':
      return channel.name;
    case 'rx':
      return formatFrequency(channel.rx);
    case 'tx':
      return formatTransmit(channel, channel.rx);
    case 'access':
      return formatAccess(channel.access);
    case 'mode':
      return channel.mode;
    case 'power':
      return formatPower(channel.power);
    case 'scan':
      return channel.scan ? 'yes' : 'no';
  }
}

const YES = ['yes', 'y', '1', 'true', 'on', 'scan'];
const NO = ['no', 'n', '0', 'false', 'off', 'skip', ''];

/** White space at an end, several of it, or some that is no blank. */
const UNEVEN = /^\s|\s$|\s\s|[^\S ]/;

/**
 * Understands a cell as typed or pasted, and gives what to set on the channel. Fails with a reason for people; the slot
 * is not set here, since moving a channel is an edit of its own.
 */
export function parseCell(
  column: Exclude<Column, 'slot'>,
  text: string,
  channel: Pick<ChannelFields, 'rx'>,
  context: CellContext,
): Result<ChannelSet> {
  switch (column) {
    case 'name': {
      const name = UNEVEN.test(text) ? text.trim().replace(/\s+/g, ' ') : text;
      return name.length > NAME_LIMIT && lengthOf(name) > NAME_LIMIT
        ? fail(`A name has ${NAME_LIMIT} characters at most; this one has ${lengthOf(name)}.`)
        : ok({ name });
    }
    case 'rx': {
      const rx = parseFrequency(text, context.bands);
      return rx.ok ? ok({ rx: rx.value }, rx.note) : rx;
    }
    case 'tx': {
      const parsed = parseTransmit(text, { rx: channel.rx, region: context.region, bands: context.bands });
      return parsed.ok ? ok<ChannelSet>(parsed.value, parsed.note) : parsed;
    }
    case 'access': {
      const access = parseAccess(text);
      return access.ok ? ok({ access: access.value }) : access;
    }
    case 'mode': {
      const mode = parseMode(text);
      return mode ? ok({ mode }) : fail(`${quoted(text)} is not a mode. Known are ${MODES.join(', ')}.`);
    }
    case 'power': {
      const label = context.powers?.find((power) => power.label.toLowerCase() === plain(text).toLowerCase());
      if (label) return ok({ power: label.milliwatts });
      const power = parsePower(text);
      return power.ok ? ok({ power: power.value }) : power;
    }
    case 'scan': {
      const word = plain(text).toLowerCase();
      if (YES.includes(word)) return ok({ scan: true });
      return NO.includes(word) ? ok({ scan: false }) : fail(`${quoted(text)} is neither yes nor no.`);
    }
  }
}

/** True where the cell keeps a text that was not understood. */
export const isMarked = ({ unclear }: Pick<Channel, 'unclear'>, column: Column): boolean =>
  column !== 'slot' && unclear?.[column] !== undefined;

/** Why the text that a cell keeps is not understood, in this region and for this radio. */
export function unclearReason(channel: Channel, column: MarkedColumn, context: CellContext): string {
  const text = channel.unclear?.[column] ?? '';
  const parsed = parseCell(column, text, channel, context);
  return parsed.ok ? `${quoted(text)} was not understood when it was typed. Type it again.` : parsed.reason;
}

/** What a paste sets, an entry a channel that it changes, and the cells that were not understood, each with its reason. */
export interface Pasted {
  changes: { id: Channel['id']; set: ChannelSet }[];
  odd: { id: Channel['id']; column: Column; text: string; reason: string }[];
  /** What is worth knowing of cells that were understood. */
  notes: string[];
}

/** Reads a block of cells. What one cell does not say never keeps the others out. */
export function parseBlock(
  rows: readonly (readonly string[])[],
  channels: readonly Channel[],
  columns: readonly Exclude<Column, 'slot'>[],
  context: CellContext,
): Pasted {
  const pasted: Pasted = { changes: [], odd: [], notes: [] };
  rows.slice(0, channels.length).forEach((cells, row) => {
    const channel = channels[row]!;
    let set: ChannelSet = {};
    columns.forEach((column, index) => {
      const text = cells[index];
      if (text === undefined) return;
      const parsed = parseCell(column, text, { rx: set.rx ?? channel.rx }, context);
      if (parsed.ok) {
        set = { ...set, ...parsed.value };
        if (parsed.note !== undefined) pasted.notes.push(`Slot ${channel.slot}: ${parsed.note}`);
      } else pasted.odd.push({ id: channel.id, column, text, reason: parsed.reason });
    });
    if (Object.keys(set).length > 0) pasted.changes.push({ id: channel.id, set });
  });
  return pasted;
}

/** Copies the first channel's cells in the columns to the others: fill down. A shift is filled as a shift. */
export function fillDown(
  channels: readonly Channel[],
  columns: readonly Column[],
): { id: Channel['id']; set: ChannelSet }[] {
  const [first, ...others] = channels;
  if (!first) return [];
  return others.map((channel) => {
    const set: ChannelSet = {};
    for (const column of columns) {
      if (column === 'slot') continue;
      if (column !== 'tx') Object.assign(set, { [column]: first[column] });
      else {
        const follows = first.tx !== null && !first.txFixed;
        const rx = set.rx ?? channel.rx;
        Object.assign(set, { tx: follows ? rx + (first.tx! - first.rx) : first.tx, txFixed: first.txFixed });
      }
    }
    return { id: channel.id, set };
  });
}
