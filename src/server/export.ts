import Papa from 'papaparse';
import { formatAccess, formatFrequency } from '../core/radio';
import type { Plan } from '../core/plan';

/** A plan as a spreadsheet (RFC 4180): one row a channel. Cells that a spreadsheet would run as formulas are defused. */
export function planCsv(plan: Plan): string {
  const rows = plan.channels.map((channel) => ({
    Slot: channel.slot,
    Name: channel.name,
    'Receive MHz': formatFrequency(channel.rx),
    'Transmit MHz': channel.tx === null ? 'listen only' : formatFrequency(channel.tx),
    Access: formatAccess(channel.access) || 'open',
    Mode: channel.mode,
    'Power W': channel.power / 1000,
    Scan: channel.scan ? 'yes' : 'no',
    'Always on': channel.alwaysOn ? 'yes' : 'no',
    Station: channel.source?.call ?? '',
    Note: channel.note,
  }));
  return Papa.unparse(rows, { escapeFormulae: true, newline: '\r\n' });
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
