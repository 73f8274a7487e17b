import type { Channel, ChannelId } from '../plan';
import { parseFrequency } from '../radio';
import { fail, ok, type Result } from '../result';
import { readTable } from './table';

/** What a log of what was heard comes to, held against the channels of a plan. */
export interface HeardLog {
  /** `at` in ms since 1970. */
  heard: { channel: ChannelId; at: number }[];
  /** Rows of which nothing came, each with its line and why. */
  refused: { line: number; text: string; reason: string }[];
}

/** Days and times as logs have them: year first with dashes or slashes, or day first with points; seconds and a zone may be there. */
const MOMENT =
  /^(?:(\d{4})[-/](\d{1,2})[-/](\d{1,2})|(\d{1,2})\.(\d{1,2})\.(\d{4}))[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.\d+)?)? ?(Z|UTC|[+-]\d{2}:?\d{2})?$/i;

/**
 * A moment as it stands in a log, ms since 1970; null where it is none. Without a zone it is UTC, as logs are kept, or the clock of who keeps it:
 * `offset` is how many minutes that is behind UTC.
 */
export function parseMoment(text: string, offset = 0): number | null {
  const match = MOMENT.exec(text.trim());
  if (!match) return null;
  const [, year, month, day, day2, month2, year2, hour, minute, second = '0', zone] = match;
  const parts = [year ?? year2, month ?? month2, day ?? day2, hour, minute, second].map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const [y, mo, d, h, mi, s] = parts;
  // A day that a month does not have, or an hour that no day has.
  const leap = y % 4 === 0 && (y % 100 !== 0 || y % 400 === 0);
  const days = [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][mo - 1] ?? 0;
  if (d < 1 || d > days || h > 23 || mi > 59 || s > 59) return null;
  const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(zone ?? '') ?? [];
  const behind =
    zone === undefined ? offset : sign ? (sign === '+' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) : 0;
  return Date.UTC(y, mo - 1, d, h, mi, s) + behind * 60_000;
}

const plainName = (text: string) => text.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * Reads a log (CSV in any dialect) of what was heard: a time, and a frequency or a name, in whichever columns. A frequency that several
 * channels have is that of the one whose name or call stands in the row too, else of all of them.
 */
export function readHeardLog(text: string, channels: readonly Channel[], offset = 0): Result<HeardLog> {
  const table = readTable(text);
  if (!table.ok) return table;
  const { rows, lines, headings } = table.value;
  const byName = new Map<string, Channel[]>();
  const byReceive = new Map<number, Channel[]>();
  const put = <K>(map: Map<K, Channel[]>, key: K, channel: Channel) =>
    map.set(key, [...(map.get(key) ?? []), channel]);
  for (const channel of channels) {
    put(byReceive, channel.rx, channel);
    for (const name of new Set([channel.name, channel.source?.call ?? ''].map(plainName)))
      if (name !== '') put(byName, name, channel);
  }
  const log: HeardLog = { heard: [], refused: [] };
  rows.forEach((row, index) => {
    const line = lines[index]!;
    const refuse = (reason: string) => log.refused.push({ line, text: row.join(' ').slice(0, 200), reason });
    // Day and time may stand in columns of their own.
    const at =
      row.map((cell) => parseMoment(cell, offset)).find((moment) => moment !== null) ??
      row
        .slice(1)
        .map((cell, before) => parseMoment(`${row[before]} ${cell}`, offset))
        .find((moment) => moment !== null);
    const named = row.flatMap((cell) => byName.get(plainName(cell)) ?? []);
    const received = row.flatMap((cell) => {
      const hz = /\d[.,]\d/.test(cell) ? parseFrequency(cell) : null;
      return hz?.ok ? (byReceive.get(hz.value) ?? []) : [];
    });
    const both = received.filter((channel) => named.includes(channel));
    const found = both.length > 0 ? both : received.length > 0 ? received : named;
    if (found.length === 0 && at === undefined && index === 0 && headings === null) return;
    if (at === undefined) return refuse('There is no day and time in it, such as 2026-11-20 14:03.');
    if (found.length === 0) return refuse('None of its frequencies and names is in this plan.');
    for (const { id } of new Set(found)) log.heard.push({ channel: id, at });
  });
  return log.heard.length === 0 && log.refused.length === 0
    ? fail('There is nothing in this log but a heading.')
    : ok(log);
}
