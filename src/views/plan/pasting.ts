import {
  makeId,
  parseBlock,
  UNCLEAR_LIMIT,
  withoutSolvedTexts,
  withReferencesThere,
  type Channel,
  type ChannelId,
  type Column,
  type NewChannel,
  type Plan,
} from '@/core/plan';
import type { Result } from '@/core/result';
import { slotRanges } from '@/core/models';
import { cutText } from '@/core/text';
import {
  newRows,
  placeInSlots,
  placeWhatFits,
  readPasted,
  type NewRows,
  type OddCell,
  type Pasted,
  type Placing,
} from '@/core/table';
import { blockRows } from './selection';
import type { RefusedRow } from './use-clipboard';
import type { Table } from './use-table';
import type { PlanInHand } from './use-plan';
import { readWhole } from './whole-channels';

const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12))) as ChannelId;

/** The channel with the texts of its cells that were not understood. */
function withTexts<C extends Pick<NewChannel, 'id' | 'unclear'>>(channel: C, odd: readonly OddCell[]): C {
  const texts = odd.flatMap(({ id, column, text }) =>
    id === channel.id && column !== 'slot' ? [[column, cutText(text.trim(), UNCLEAR_LIMIT)]] : [],
  );
  return texts.length === 0
    ? channel
    : { ...channel, unclear: { ...channel.unclear, ...Object.fromEntries(texts) } };
}

/** What a pasted block changes; what was not understood stays in its cell, as if it had been typed there. */
function withOddCells({ changes, odd }: ReturnType<typeof parseBlock>, targets: readonly Channel[]) {
  const sets = new Map(changes.map(({ id, set }) => [id, set]));
  return targets.flatMap((channel) => {
    const set = sets.get(channel.id);
    const after = withTexts(withoutSolvedTexts(channel, set ?? {}), odd);
    const unclear = after.unclear !== channel.unclear ? { unclear: after.unclear ?? {} } : {};
    const all = { ...set, ...unclear };
    return Object.keys(all).length > 0 ? [{ id: channel.id, set: all }] : [];
  });
}

const rowsOf = (n: number) => (n === 1 ? '1 row' : `${n} rows`);

/** What came of a paste or a file: channels, cells that were not understood, and what is worth knowing. */
interface Came {
  channels: readonly NewChannel[];
  odd: readonly OddCell[];
  notes: readonly string[];
}

/** What pasting works on; it comes with the first paste. */
export interface PasteInto {
  hand: PlanInHand;
  table: Table;
  say: (result: Result<unknown>, done?: string) => void;
  setRefused: (rows: readonly RefusedRow[]) => void;
}

/** Takes what was pasted, or makes the chosen once more: cells, rows under headings, running text, whole channels. */
export function pasting({ hand, table, say, setRefused }: PasteInto) {
  const { store, context } = hand;
  const { chosenChannels, selection, rows } = table;

  /** Places new channels from the focus on, where there is a slot; the rest waits beside the table. */
  const add = async (
    made: readonly NewChannel[],
    odd: readonly OddCell[],
    notes: readonly string[],
    before?: number,
  ) => {
    if (made.length === 0) return;
    // A cell that is not understood keeps its text, as part of the channel.
    const channels = made.map((channel) => withTexts(channel, odd));
    await store.settled();
    const plan: Plan = store.get().plan;
    const lost = withReferencesThere(plan, 'leftOver', channels).filter(
      (channel, at) => channel !== channels[at],
    ).length;
    settle(
      placeWhatFits(plan, channels, {
        placement: before === undefined ? 'next-free' : 'push-down',
        at: before ?? table.active?.slot ?? table.range.first,
        range: table.range,
        list: table.list,
      }),
      {
        ...{ channels, odd },
        notes:
          lost > 0
            ? [
                `${lost === 1 ? 'One came' : `${lost} came`} without talkgroup or lists, which are of another plan.`,
                ...notes,
              ]
            : notes,
      },
    );
  };

  /** Keeps what was placed, and says what came of it. */
  const settle = ({ edit, placed, over }: Placing, { channels, odd, notes }: Came) => {
    const result = store.apply(edit);
    const sentences = [
      `${placed === 1 ? '1 channel is' : `${placed} channels are`} new.`,
      ...(over > 0 ? [`${over} found no slot and wait in left over.`] : []),
      ...(odd.length > 0
        ? [
            `${odd.length === 1 ? 'One cell is' : `${odd.length} cells are`} not understood and marked; the rest is in.`,
          ]
        : []),
      ...notes.slice(0, 2),
    ];
    say(result, sentences.join(' '));
    if (!result.ok) return;
    const there = new Set(result.value.channels.map(({ id }) => id));
    // What wants the person first: a cell that was not understood, or else the first that is new.
    const bad = odd.find(({ id }) => there.has(id));
    const first = channels.find(({ id }) => there.has(id));
    // When the table has them.
    if (bad) setTimeout(() => table.selectLater(bad.id, bad.column), 0);
    else if (first) setTimeout(() => table.selectLater(first.id), 0);
  };

  const pasteOwn = async (text: string, before?: number): Promise<boolean> => {
    const channels = readWhole(text);
    if (!channels) return false;
    await add(
      channels.map((channel) => ({ ...channel, id: newId() })),
      [],
      [],
      before,
    );
    return true;
  };

  const pasteRows = async (pasted: Extract<Pasted, { kind: 'rows' }>) => {
    const made = newRows(pasted.rows, context, newId);
    setRefused(made.refused);
    const unknown =
      pasted.unknown.length > 0 ? [`Not known as headings: ${pasted.unknown.slice(0, 4).join(', ')}.`] : [];
    await add(made.channels, made.odd, [...unknown, ...made.notes]);
    if (made.channels.length === 0)
      say({
        ok: false,
        reason: `Of ${rowsOf(made.refused.length)} no channel came; beside the table is why.`,
      });
  };

  /** A block of cells from the focus rightwards and down; one cell goes to all that is chosen; what lies below the last row is new. */
  const pasteBlock = async (cells: string[][]) => {
    const [from] = blockRows(selection);
    const one = cells.length === 1 && cells[0]!.length === 1;
    const shown = table.layout.columns;
    const first = Math.max(shown.indexOf(table.columns[0]!), 0);
    // From the slot column on rows are whole: their slots are those of the rows that they go over.
    const whole = first === 0 && cells[0]!.length > 1;
    const columns = shown.slice(whole ? 1 : Math.max(1, first)) as Exclude<Column, 'slot'>[];
    const block = one
      ? chosenChannels.map(() => cells[0]!)
      : cells.map((row) => (whole ? row.slice(1) : row));
    const targets = one ? chosenChannels : rows.slice(from, from + block.length);
    const pastedColumns = columns.slice(0, Math.max(...block.map((row) => row.length)));
    const parsed = parseBlock(block, targets, pastedColumns, context);
    const beyond = block.slice(targets.length);
    if (parsed.changes.length > 0 || beyond.length === 0) {
      const result = table.change(withOddCells(parsed, targets));
      say(
        result,
        [
          parsed.odd.length > 0
            ? `${parsed.odd.length === 1 ? 'One cell is' : `${parsed.odd.length} cells are`} not understood and marked; the rest is in.`
            : `Pasted ${rowsOf(parsed.changes.length)}.`,
          ...parsed.notes.slice(0, 2),
        ].join(' '),
      );
    }
    if (beyond.length === 0) return;
    if (!pastedColumns.includes('rx'))
      return say({
        ok: false,
        reason: `${rowsOf(beyond.length)} were not pasted: there is no channel below, and without a receive frequency none comes about.`,
      });
    await pasteRows({
      kind: 'rows',
      unknown: [],
      rows: beyond.map((row, at) => ({
        line: targets.length + at + 1,
        cells: Object.fromEntries(pastedColumns.map((column, place) => [column, row[place] ?? ''])),
      })),
    });
  };

  return {
    /** Takes what a file came to: in the slots that it names as far as they are free, or in the next free ones. */
    file: async (made: NewRows, inSlots: boolean) => {
      setRefused(made.refused);
      await store.settled();
      if (inSlots && made.channels.length > 0)
        settle(placeInSlots(store.get().plan, made.channels, made.slots, slotRanges(hand.model)), made);
      else await add(made.channels, made.odd, made.notes);
    },
    /** Takes whole channels that were dropped before a slot; what stands there goes down. */
    drop: (own: string, before: number) => pasteOwn(own, before),
    async paste(text: string, own: string) {
      if (own !== '' && (await pasteOwn(own))) return;
      const { default: Papa } = await import('papaparse');
      const trimmed = text.replace(/\r?\n$/, '');
      // Without a tab it may be a table of another kind; a decimal comma is no delimiter of that.
      const delimiter = trimmed.includes('\t') ? '\t' : /^[^\n]*;[^\n]*;/.test(trimmed) ? ';' : '';
      const parsed = Papa.parse<string[]>(trimmed, {
        delimiter: delimiter || (/^[A-Za-z "/]+(,[A-Za-z "/]+)+\r?\n/.test(trimmed) ? ',' : '\t'),
      }).data;
      const pasted = readPasted(trimmed, parsed);
      if (pasted.kind === 'rows') await pasteRows(pasted);
      else await pasteBlock(pasted.cells);
    },
    /** The chosen once more, in the next free slots behind them; all but their names by hand, which are of one slot each. */
    duplicate: () =>
      add(
        chosenChannels.map(({ slot: _, list: _list, ...fields }) => ({ ...fields, id: newId() })),
        [],
        [],
      ),
  };
}
