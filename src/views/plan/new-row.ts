import { channelDefaults, parseCell, type CellContext, type ChannelFields, type Column } from '@/core/plan';
import { fail, ok, type Result } from '@/core/result';

/**
 * What was typed into the empty row before it became a channel, by column: a name first, say. It becomes a channel with its receive frequency.
 * Kept in the browser, so that leaving the page loses nothing.
 */
export type NewRowTexts = Readonly<Partial<Record<Column, string>>>;

const keyOf = (planId: string, list: number) => `veridon.new-row.${planId}.${list}`;

export function readNewRow(planId: string, list: number): NewRowTexts {
  try {
    const texts: unknown = JSON.parse(window.localStorage.getItem(keyOf(planId, list)) ?? '{}');
    return typeof texts === 'object' && texts !== null ? (texts as NewRowTexts) : {};
  } catch {
    return {};
  }
}

export function keepNewRow(planId: string, list: number, texts: NewRowTexts): void {
  try {
    if (Object.keys(texts).length === 0) window.localStorage.removeItem(keyOf(planId, list));
    else window.localStorage.setItem(keyOf(planId, list), JSON.stringify(texts));
  } catch {
    // A browser that keeps nothing: the row lasts as long as the page.
  }
}

/** Columns that a new channel reads, each after those on which its text depends: a shift needs the receive frequency. */
const IN_ORDER = ['name', 'tx', 'access', 'mode', 'power', 'scan'] as const;

export interface NewChannelTyped {
  fields: ChannelFields;
  /** Texts that were not understood, by column. */
  unclear: Partial<Record<Column, string>>;
  note: string;
}

/** The channel that the texts of the empty row make. Fails where the receive frequency is missing or not understood. */
export function channelOfTexts(texts: NewRowTexts, context: CellContext): Result<NewChannelTyped> {
  if ((texts.rx ?? '').trim() === '') return fail('Type the receive frequency of the new channel.');
  const rx = parseCell('rx', texts.rx!, { rx: 0 }, context);
  if (!rx.ok) return rx;
  let fields = channelDefaults(rx.value.rx!);
  const unclear: NewChannelTyped['unclear'] = {};
  let note = rx.note ?? '';
  for (const column of IN_ORDER) {
    const text = texts[column];
    if (text === undefined || text.trim() === '') continue;
    const parsed = parseCell(column, text, fields, context);
    if (parsed.ok) fields = { ...fields, ...parsed.value };
    else unclear[column] = text;
    if (parsed.ok && parsed.note !== undefined) note = parsed.note;
  }
  return ok({ fields, unclear, note });
}

/** True where the empty row takes this text: without a receive frequency a shift cannot be judged yet. */
export function understoodAlone(column: Column, text: string, context: CellContext): Result<null> {
  if (column === 'slot' || column === 'tx') return ok(null);
  const parsed = parseCell(column, text, { rx: 0 }, context);
  return parsed.ok ? ok(null) : parsed;
}
