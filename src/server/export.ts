import Papa from 'papaparse';
import { formatAccess, formatFrequency } from '../core/radio';
import type { Plan } from '../core/plan';

/**
 * A text that no spreadsheet runs as a formula: where the first sign that is seen is one of = + - @, also full-width or
 * otherwise the same (NFKC, Unicode 16, annex 15), or a tab or line break begins it, which some programs leave out, an
 * apostrophe stands before it, which spreadsheets do not show.
 */
export function defused(text: string): string {
  const seen = text.replace(/^[\s\p{C}\p{Z}\p{M}]+/u, '');
  const first = String.fromCodePoint(seen.codePointAt(0) ?? 0).normalize('NFKC');
  return /^[=+\-\u2212@]/.test(first) || /^[\t\r\n]/.test(text) ? `'${text}` : text;
}

/** A plan as a spreadsheet (RFC 4180): one row a channel. Cells that a spreadsheet would run as formulas are defused. */
export function planCsv(plan: Plan): string {
  const rows = plan.channels.map((channel) => ({
    Slot: channel.slot,
    Name: defused(channel.name),
    'Receive MHz': formatFrequency(channel.rx),
    'Transmit MHz': channel.tx === null ? 'listen only' : formatFrequency(channel.tx),
    Access: formatAccess(channel.access) || 'open',
    Mode: channel.mode,
    'Power W': channel.power / 1000,
    Scan: channel.scan ? 'yes' : 'no',
    'Always on': channel.alwaysOn ? 'yes' : 'no',
    Satellite: channel.satellite ? 'yes' : 'no',
    Station: defused(channel.source?.call ?? ''),
    Note: defused(channel.note),
  }));
  return Papa.unparse(rows, { newline: '\r\n' });
}

/** A name that is safe in a Content-Disposition header and on every file system. */
export function fileName(plan: Plan, ending: string): string {
  const base = plan.name
    .normalize('NFD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase();
  return `${base || 'plan'}.${ending}`;
}
