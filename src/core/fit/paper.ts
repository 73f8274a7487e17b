import { formatAccess, formatFrequency, formatPower, formatShift } from '../radio';
import { abbreviationsOf, slotText, type Channel, type Plan } from '../plan';
import type { Model } from '../models';
import { fitNames } from './fit';

/** What can be made of a plan on paper. */
export const PAPERS = ['card', 'wall', 'banks'] as const;
export type Paper = (typeof PAPERS)[number];

export const PAPER_NAMES: Record<Paper, { name: string; use: string }> = {
  card: { name: 'Pocket card', use: 'folds to the size of a hand' },
  wall: { name: 'Wall list', use: 'all of it, to hang up' },
  banks: { name: 'A sheet a bank', use: 'one for each zone' },
};

/** A channel as it is read on paper. */
export interface PaperRow {
  id: string;
  slot: string;
  name: string;
  /** What the radio's display reads; empty where it holds no name. */
  shown: string;
  receive: string;
  /** The transmit side in the fewest signs: a shift, a frequency, `=` for the same, nothing for listen only. */
  transmit: string;
  access: string;
  mode: string;
  power: string;
  scan: boolean;
  place: string;
  note: string;
}

/** The transmit side as it fits on a card: `−0.6`, `438.4875`, `=`; empty for listen only. */
function transmitText({ rx, tx, txFixed }: Channel): string {
  if (tx === null) return '';
  if (tx === rx) return '=';
  return txFixed ? formatFrequency(tx) : formatShift(tx - rx).replace('-', '−');
}

/** The channels of a plan as they are read on paper, by the names that a radio shows. */
export function paperRows(plan: Plan, model: Model): PaperRow[] {
  const shown = fitNames(plan.channels, model, abbreviationsOf(plan));
  return plan.channels.map((channel, at) => ({
    id: channel.id,
    slot: `${model.lists.length > 1 ? `${model.lists[channel.list]?.name.slice(0, 1) ?? ''} ` : ''}${slotText(channel.slot)}`,
    name: channel.name,
    shown: shown[at]?.text ?? '',
    receive: formatFrequency(channel.rx),
    transmit: transmitText(channel),
    access: formatAccess(channel.access),
    mode: channel.mode,
    power: channel.tx === null ? '' : formatPower(channel.power),
    scan: channel.scan,
    // Many a station is called after its place: said once is enough.
    place: channel.source?.place === channel.name ? '' : (channel.source?.place ?? ''),
    note: channel.note,
  }));
}

/** Faces of a pocket card, and rows on one; the first has the title. */
export const CARD = { faces: 8, rows: 27, title: 3 };

/**
 * Rows parted into sheets of eight faces, each face with the rows that it has room for. The last sheet has as many faces as it needs.
 *
 * @example cardSheets(Array(40).fill(0)).map((sheet) => sheet.map((face) => face.length)) // [[24, 16]]
 */
export function cardSheets<T>(rows: readonly T[]): T[][][] {
  const faces: T[][] = [rows.slice(0, CARD.rows - CARD.title)];
  for (let at = CARD.rows - CARD.title; at < rows.length; at += CARD.rows)
    faces.push(rows.slice(at, at + CARD.rows));
  return Array.from({ length: Math.ceil(faces.length / CARD.faces) }, (_, sheet) =>
    faces.slice(sheet * CARD.faces, (sheet + 1) * CARD.faces),
  );
}
