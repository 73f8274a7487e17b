import { ok, fail, type Result } from '../result';
import { LAST_PERSON_ID } from './person.schema';
import type { OddRows } from './person.schema';
import { quoted } from '../text';

/** Who keyed up on which talkgroup, and when: a log of many rows, counted by day, talkgroup and number as it is read. */

/** Key-ups of a day on a talkgroup: number of who keyed up, and how often. */
export type DayCounts = ReadonlyMap<number, number>;

/** What a log comes to. */
export interface KeyUpCounts {
  keyUps: number;
  odd: OddRows;
  /** By day (`2026-11-20`) and talkgroup. */
  days: ReadonlyMap<string, ReadonlyMap<number, DayCounts>>;
}

/** Odd rows that are named; the others are counted. */
const ODD_TOLD = 20;

/** The columns that are wanted, by the headings that logs have for them. */
const HEADINGS: Readonly<Record<'time' | 'talkgroup' | 'id', readonly string[]>> = {
  time: ['time', 'when', 'date', 'begin', 'start'],
  talkgroup: ['talkgroup', 'group', 'tg', 'to'],
  id: ['id', 'number', 'from', 'source'],
};

const whole = (text: string | undefined): number | null =>
  text !== undefined && /^\s*\d{1,8}\s*$/.test(text) ? Number(text) : null;

const isLeap = (year: number) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
const daysIn = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/** The day of a moment as it is written, ISO 8601 with or without a time; null where it is none. */
function dayOf(text: string | undefined): string | null {
  const [, year, month, day] = /^\s*(\d{4})-(\d\d)-(\d\d)(?:[T ]|\s*$)/.exec(text ?? '') ?? [];
  if (!year) return null;
  const [m, d] = [Number(month), Number(day)];
  return m >= 1 && m <= 12 && d >= 1 && d <= daysIn(Number(year), m) ? `${year}-${month}-${day}` : null;
}

/**
 * Reads a log row by row; the first row has its headings. A row that makes no sense is counted and left out. Nothing of the log is held but
 * counts, so that its length does not matter.
 *
 * @example const log = keyUpLog(); for (const row of rows) log.row(row); log.end(); // { keyUps, odd, days }
 */
export function keyUpLog() {
  const days = new Map<string, Map<number, Map<number, number>>>();
  const odd: OddRows = { count: 0, first: [] };
  let columns: Record<keyof typeof HEADINGS, number> | null = null;
  let missing = '';
  let [at, keyUps] = [0, 0];
  const strange = (reason: string) => {
    odd.count++;
    if (odd.first.length < ODD_TOLD) odd.first.push({ row: at, reason });
  };
  const head = (row: readonly string[]) => {
    const names = row.map((cell) => cell.trim().toLowerCase());
    const placed = Object.entries(HEADINGS).map(
      ([key, words]) => [key, names.findIndex((name) => words.includes(name))] as const,
    );
    missing = placed
      .filter(([, place]) => place < 0)
      .map(([key]) => key)
      .join(', ');
    columns = Object.fromEntries(placed) as Record<keyof typeof HEADINGS, number>;
  };
  return {
    row(cells: readonly string[]): void {
      if (!columns) return head(cells);
      at++;
      if (missing || (cells.length === 1 && cells[0]!.trim() === '')) return void (missing || at--);
      const day = dayOf(cells[columns.time]);
      const talkgroup = whole(cells[columns.talkgroup]);
      const id = whole(cells[columns.id]);
      if (day === null) return strange(`${quoted(cells[columns.time] ?? '')} is no day.`);
      if (talkgroup === null || talkgroup < 1 || talkgroup > 0xffffff)
        return strange(`${quoted(cells[columns.talkgroup] ?? '')} is no talkgroup.`);
      if (id === null || id < 1 || id > LAST_PERSON_ID)
        return strange(`${quoted(cells[columns.id] ?? '')} is no number of anybody.`);
      let groups = days.get(day);
      if (!groups) days.set(day, (groups = new Map()));
      let counts = groups.get(talkgroup);
      if (!counts) groups.set(talkgroup, (counts = new Map()));
      counts.set(id, (counts.get(id) ?? 0) + 1);
      keyUps++;
    },
    end(): Result<KeyUpCounts> {
      if (!columns) return fail('Nothing came of the log.');
      if (missing) return fail(`What came is no log of key-ups: it has no column for ${missing}.`);
      if (keyUps === 0)
        return fail(
          odd.count === 0
            ? 'There is nobody in what came: the log has no rows.'
            : `None of the ${odd.count} rows of this log is a key-up. The first: ${odd.first[0]!.reason}`,
        );
      return ok({ keyUps, odd, days });
    },
  };
}

/** Counts as they are kept: pairs of a number and how often, 32 bits each, least significant byte first. */
export function packCounts(counts: DayCounts): Uint8Array {
  const bytes = new Uint8Array(counts.size * 8);
  const view = new DataView(bytes.buffer);
  let at = 0;
  for (const [id, times] of counts) {
    view.setUint32(at, id, true);
    view.setUint32(at + 4, times, true);
    at += 8;
  }
  return bytes;
}

/** Adds packed counts to those of others. */
export function addCounts(to: Map<number, number>, packed: Uint8Array): void {
  const view = new DataView(packed.buffer, packed.byteOffset, packed.byteLength);
  for (let at = 0; at + 8 <= packed.byteLength; at += 8) {
    const id = view.getUint32(at, true);
    to.set(id, (to.get(id) ?? 0) + view.getUint32(at + 4, true));
  }
}
