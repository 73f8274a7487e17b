'use client';

import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { FileContent, Delimiter, Table } from '@/core/interchange';
import { makeId } from '@/core/plan';
import type { Result } from '@/core/result';
import { COLUMN_MEANINGS, newRows, rowsByMeaning, type ColumnMeaning, type PastedRow } from '@/core/table';
import { browserStore, Button, Choice, Scroll, Trouble, useEscape } from '@/ui';
import { readInWorker } from '@/views/parts/read-file';
import { useDesk } from './desk';

const DELIMITERS: readonly (readonly [Delimiter, string])[] = [
  [',', 'commas'],
  [';', 'semicolons'],
  ['\t', 'tabs'],
  ['|', 'bars'],
];

const MEANINGS: readonly (readonly [ColumnMeaning | 'none', string])[] = [
  ['none', 'left out'],
  ['name', 'name'],
  ['rx', 'receive'],
  ['tx', 'transmit'],
  ['shift', 'shift'],
  ['direction', 'direction of the shift'],
  ['access', 'tone or code'],
  ['send', 'tone that is sent'],
  ['expect', 'tone that is expected'],
  ['mode', 'mode'],
  ['power', 'power'],
  ['scan', 'scan'],
  ['note', 'note'],
  ['tags', 'tags'],
  ['call', 'call sign'],
  ['place', 'place'],
  ['lat', 'latitude'],
  ['lon', 'longitude'],
  ['locator', 'locator'],
  ['service', 'service'],
  ['slot', 'number (not used)'],
];

type Meanings = readonly (ColumnMeaning | undefined)[];

/** What columns were said to be, by the headings of the file: the next file of that kind is read so. */
const remembered = browserStore('veridon-file-columns', (text): Record<string, Meanings> => {
  try {
    const kept: unknown = JSON.parse(text ?? '{}');
    if (typeof kept !== 'object' || kept === null) return {};
    // What another version or a person left there that is none is left out.
    const known = (one: unknown) => COLUMN_MEANINGS.find((meaning) => meaning === one);
    return Object.fromEntries(
      Object.entries(kept).flatMap(([kind, own]: [string, unknown]) =>
        Array.isArray(own) ? [[kind, own.map(known)] as const] : [],
      ),
    );
  } catch {
    return {};
  }
});
const KEPT_KINDS = 30;

const kindOf = ({ headings, meanings, delimiter }: Table) =>
  headings ? headings.join(delimiter) : `${delimiter}${meanings.length} columns`;

const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12)));

/** A file that was dropped or opened: what it is, what its columns are, and what comes of it, before it is put in. */
export function FilePanel({ file, onClose }: { file: File; onClose: () => void }) {
  const { actions } = useDesk();
  const [delimiter, setDelimiter] = useState<Delimiter>();
  const [content, setContent] = useState<Result<FileContent> | null>(null);
  useEscape(onClose);
  useEffect(() => readInWorker(file, delimiter, setContent), [file, delimiter]);
  const found = content?.ok ? content.value : null;
  return (
    <section
      aria-label={`The file ${file.name}`}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet text-[13px]"
    >
      <p className="shrink-0 border-b border-line px-3 py-2" role="status">
        <b className="font-semibold">{file.name}</b>{' '}
        <span className="text-soft">{content === null ? 'is being read…' : found ? saidOf(found) : ''}</span>
      </p>
      {content && !content.ok && <Trouble className="m-3">{content.reason}</Trouble>}
      {found?.kind === 'table' && (
        <TableOf
          key={`${file.name} ${found.table.delimiter}`}
          table={found.table}
          onDelimiter={setDelimiter}
          onClose={onClose}
        />
      )}
      {found?.kind === 'places' && <Rows rows={found.rows} onClose={onClose} />}
      {found?.kind === 'plan' && (
        <Foot
          n={found.channels.length}
          onTake={() => void actions.takeWhole(found.channels)}
          onClose={onClose}
        />
      )}
      {!found && <Foot n={0} onTake={() => {}} onClose={onClose} />}
    </section>
  );
}

function saidOf(found: FileContent): string {
  switch (found.kind) {
    case 'table': {
      const { rows, headings, beyond } = found.table;
      return `${rows.length} rows, ${found.encoding}${headings ? ', with headings' : ', without headings'}${beyond > 0 ? `; ${beyond} more are not read` : ''}`;
    }
    case 'places':
      return `${found.what}, ${found.rows.length} places`;
    case 'plan':
      return `the plan “${found.name}”`;
  }
}

function TableOf({
  table,
  onDelimiter,
  onClose,
}: {
  table: Table;
  onDelimiter: (delimiter: Delimiter) => void;
  onClose: () => void;
}) {
  const kind = kindOf(table);
  const [meanings, setMeanings] = useState<Meanings>(() => remembered.now()[kind] ?? table.meanings);
  const [first] = table.rows;
  const settled = useDeferredValue(meanings);
  const rows = useMemo(
    () => rowsByMeaning(settled, table.rows, (row) => table.lines[row]!),
    [settled, table],
  );
  const choose = (column: number, meaning: ColumnMeaning | 'none') => {
    const next = table.meanings.map((_, at) =>
      at === column ? (meaning === 'none' ? undefined : meaning) : meanings[at],
    );
    setMeanings(next);
    const others = Object.entries(remembered.now()).filter(([other]) => other !== kind);
    remembered.put(Object.fromEntries([[kind, next] as const, ...others].slice(0, KEPT_KINDS)));
  };
  return (
    <Rows rows={rows} onClose={onClose}>
      <Choice
        label="Cells are parted by"
        value={table.delimiter}
        options={DELIMITERS}
        onChange={onDelimiter}
        className="px-3 py-2"
      />
      <ul aria-label="What the columns are" className="border-y border-line">
        {table.meanings.map((_, column) => (
          <li key={column} className="flex items-center gap-2 px-3 py-1">
            <span className="min-w-0 flex-1">
              <span className="block truncate">{table.headings?.[column] || `Column ${column + 1}`}</span>
              <span className="mono block truncate text-[12px] text-soft">{first?.[column] || 'empty'}</span>
            </span>
            <Choice
              label={`What ${table.headings?.[column] || `column ${column + 1}`} is`}
              hideLabel
              className="w-32"
              value={meanings[column] ?? 'none'}
              options={MEANINGS}
              onChange={(meaning) => choose(column, meaning)}
            />
          </li>
        ))}
      </ul>
    </Rows>
  );
}

/** What comes of the rows: the first of them as channels, and those that are not understood. */
function Rows({
  rows,
  onClose,
  children,
}: {
  rows: readonly PastedRow[];
  onClose: () => void;
  children?: React.ReactNode;
}) {
  const { hand, actions } = useDesk();
  const made = useMemo(() => newRows(rows, hand.context, newId), [rows, hand.context]);
  return (
    <>
      <Scroll label="What the file has" className="flex-1">
        {children}
        <ul aria-label="What comes of it" className="px-3 py-2">
          {made.channels.slice(0, 6).map(({ id, name, rx, tx }) => (
            <li key={id} className="flex gap-2">
              <span className="min-w-0 flex-1 truncate">{name || 'no name'}</span>
              <span className="mono text-receive">{(rx / 1e6).toFixed(4)}</span>
              <span className="mono text-soft">
                {tx === null
                  ? 'listen'
                  : tx === rx
                    ? 'same'
                    : `${tx > rx ? '+' : '−'}${(Math.abs(tx - rx) / 1e6).toFixed(1)}`}
              </span>
            </li>
          ))}
          {made.channels.length > 6 && <li className="text-soft">and {made.channels.length - 6} more</li>}
        </ul>
        {made.refused.length > 0 && (
          <ul aria-label="Rows that are not understood" className="border-t border-line px-3 py-2">
            {made.refused.slice(0, 20).map(({ line, text, reason }) => (
              <li key={line} className="py-0.5">
                <span className="text-soft">Line {line}</span>{' '}
                <span className="mono break-words text-[12px]">{text || 'empty'}</span>
                <span className="block text-stop">{reason}</span>
              </li>
            ))}
          </ul>
        )}
      </Scroll>
      <p className="border-t border-line px-3 py-1.5 text-soft" role="status">
        {made.channels.length} channels
        {made.odd.length > 0 && `, ${made.odd.length} cells not understood and marked`}
        {made.refused.length > 0 && `, ${made.refused.length} rows not taken`}
      </p>
      <Foot n={made.channels.length} onTake={() => void actions.takeRows(rows)} onClose={onClose} />
    </>
  );
}

function Foot({ n, onTake, onClose }: { n: number; onTake: () => void; onClose: () => void }) {
  return (
    <div className="mt-auto flex shrink-0 gap-2 border-t border-line p-3">
      {n > 0 && (
        <Button
          kind="strong"
          className="flex-1"
          onClick={() => {
            onTake();
            onClose();
          }}
        >
          {n === 1 ? 'Put in 1 channel' : `Put in ${n} channels`}
        </Button>
      )}
      <Button onClick={onClose}>{n > 0 ? 'Cancel' : 'Close'}</Button>
    </div>
  );
}
