import {
  channelsIn,
  readFile,
  rowsOfTable,
  type Delimiter,
  type FileContent,
  type Geography,
} from '@/core/interchange';
import { CHANNEL_LIMIT, makeId, type CellContext } from '@/core/plan';
import type { Result } from '@/core/result';
import { newRows, type ColumnMeaning, type NewRows } from '@/core/table';

/** What a page is told of a file: what it is and how it begins. Its rows stay here: a page would wait for them. */
export type FileHead =
  | {
      kind: 'table';
      encoding: string;
      delimiter: Delimiter | null;
      headings: string[] | null;
      meanings: (ColumnMeaning | undefined)[];
      first: string[];
      rows: number;
      beyond: number;
    }
  | { kind: 'places'; what: Geography['kind']; places: number; lines: Geography['lines'] }
  | { kind: 'list'; rows: number }
  | { kind: 'plan'; name: string };

/** What is asked of the worker: to read a file, or to make channels of what it has read. */
export type FileAsk =
  | { ask: 'read'; bytes: ArrayBuffer; delimiter: Delimiter | undefined }
  | { ask: 'make'; meanings: readonly (ColumnMeaning | undefined)[]; context: CellContext };

/** What comes of it; `beyond` counts the channels that no plan has room for. */
export type Made = NewRows & { beyond: number; refusedCount: number };
export type FileSays =
  | { says: 'so far'; share: number }
  | { says: 'read'; head: Result<FileHead> }
  | { says: 'made'; made: Made };

/** Rows that are not understood are listed, so many of them. */
const REFUSED_LISTED = 200;

/** Chance is fetched for many ids at once: to ask for it costs more than to make a channel. */
const ID_BYTES = 12;
const chance = new Uint8Array(ID_BYTES * 1000);
let used = chance.length;
const newId = () => {
  if (used >= chance.length) {
    crypto.getRandomValues(chance);
    used = 0;
  }
  used += ID_BYTES;
  return makeId('ch', chance.subarray(used - ID_BYTES, used));
};
const say = (what: FileSays) => postMessage(what);
const soFar = (share: number) => say({ says: 'so far', share });

let content: FileContent | null = null;

function headOf(found: FileContent): FileHead {
  if (found.kind === 'plan') return { kind: 'plan', name: found.name };
  if (found.kind === 'list') return { kind: 'list', rows: found.rows.length };
  if (found.kind === 'places')
    return { kind: 'places', what: found.what, places: found.rows.length, lines: found.lines };
  const { delimiter, headings, meanings, rows, beyond } = found.table;
  return {
    kind: 'table',
    encoding: found.encoding,
    ...{ delimiter, headings, meanings, beyond },
    first: rows[0] ?? [],
    rows: rows.length,
  };
}

function make(found: FileContent, meanings: readonly (ColumnMeaning | undefined)[], context: CellContext) {
  const made =
    found.kind === 'table'
      ? newRows(rowsOfTable(found.table, meanings, soFar), context, newId, CHANNEL_LIMIT)
      : channelsIn(found, context, newId);
  const channels = made.channels.slice(0, CHANNEL_LIMIT);
  return {
    ...made,
    channels,
    beyond: made.beyond + made.channels.length - channels.length,
    refused: made.refused.slice(0, REFUSED_LISTED),
    refusedCount: made.refused.length,
  };
}

/** Reads a file beside the page, which a large one would hold up, and makes channels of it. It is ended where nobody waits any more. */
addEventListener('message', ({ data }: MessageEvent<FileAsk>) => {
  if (data.ask === 'make') {
    if (content) say({ says: 'made', made: make(content, data.meanings, data.context) });
    return;
  }
  void readFile(new Uint8Array(data.bytes), { delimiter: data.delimiter, soFar }).then((read) => {
    content = read.ok ? read.value : null;
    say({ says: 'read', head: read.ok ? { ok: true, value: headOf(read.value) } : read });
  });
});
