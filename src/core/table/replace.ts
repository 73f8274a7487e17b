import { cellText, parseCell, type CellContext, type Channel, type ChannelSet, type Column } from '../plan';

/** What is looked for and what it is replaced by. */
export interface Replacing {
  find: string;
  by: string;
  /** In which columns; slots are numbers that moving changes. */
  columns: readonly Exclude<Column, 'slot'>[];
  /** Capitals and small letters are told apart. */
  exactCase: boolean;
  /** The whole cell, and not a part of it. */
  wholeCell: boolean;
}

/** A cell in which it was found: what it would be then, and what that sets or why it cannot be. */
export interface Replaced {
  id: Channel['id'];
  column: Exclude<Column, 'slot'>;
  before: string;
  after: string;
  set: ChannelSet | null;
  reason: string | null;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * Every cell in which the text stands, with what becomes of it, before anything is changed. Cells are looked at as they are
 * typed (`-0.6`, `88.5/88.5`, `x`). What would stand there is read as if it had been typed.
 */
export function previewReplacing(
  channels: readonly Channel[],
  { find, by, columns, exactCase, wholeCell }: Replacing,
  context: CellContext,
): Replaced[] {
  if (find === '') return [];
  const pattern = new RegExp(wholeCell ? `^${escaped(find)}$` : escaped(find), exactCase ? 'gu' : 'giu');
  return channels.flatMap((channel) => {
    // Transmit is read against the receive that the same stroke gives the channel.
    let { rx } = channel;
    return columns.flatMap((column): Replaced[] => {
      const before = cellText(channel, column);
      const after = before.replace(pattern, () => by);
      if (after === before) return [];
      const read = parseCell(column, after, { rx }, context);
      if (read.ok && read.value.rx !== undefined) ({ rx } = { rx: read.value.rx });
      return [
        {
          id: channel.id,
          column,
          before,
          after,
          set: read.ok ? read.value : null,
          reason: read.ok ? null : read.reason,
        },
      ];
    });
  });
}

/** The changes of what can be replaced, one a channel. */
export function replacingChanges(found: readonly Replaced[]): { id: Channel['id']; set: ChannelSet }[] {
  const byChannel = new Map<Channel['id'], ChannelSet>();
  for (const { id, set } of found) if (set) byChannel.set(id, { ...byChannel.get(id), ...set });
  return [...byChannel].map(([id, set]) => ({ id, set }));
}
