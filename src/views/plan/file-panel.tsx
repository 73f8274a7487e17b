'use client';

import { useEffect, useRef, useState } from 'react';
import type { Delimiter } from '@/core/interchange';
import type { Result } from '@/core/result';
import { COLUMN_MEANINGS, type ColumnMeaning } from '@/core/table';
import { browserStore, Button, Choice, Scroll, Trouble, useEscape } from '@/ui';
import { readInWorker, type FileInHand } from '@/views/parts/read-file';
import type { FileHead, Made } from '@/workers/file-worker';
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
  ['slot', 'slot'],
  ['side', 'side'],
  ['always', 'always on'],
  ['satellite', 'satellite'],
  ['fixed', 'transmit is its own'],
  ['directory', 'directory'],
  ['entry', 'entry'],
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

type TableHead = Extract<FileHead, { kind: 'table' }>;

const kindOf = ({ headings, meanings, delimiter }: TableHead) =>
  headings ? headings.join(delimiter ?? '|') : `${delimiter}${meanings.length} columns`;

/** A file that was dropped or opened: what it is, what its columns are, and what comes of it, before it is put in. */
export function FilePanel({ file, onClose }: { file: File; onClose: () => void }) {
  const { hand, actions } = useDesk();
  const { context } = hand;
  const [delimiter, setDelimiter] = useState<Delimiter>();
  const [head, setHead] = useState<Result<FileHead> | null>(null);
  const [made, setMade] = useState<Made | null>(null);
  const [share, setShare] = useState(0);
  const [meanings, setMeanings] = useState<Meanings>([]);
  const [inSlots, setInSlots] = useState(true);
  const reading = useRef<FileInHand | null>(null);
  useEscape(onClose);
  useEffect(() => {
    const inHand = readInWorker(file, delimiter, {
      onHead: (next) => {
        setHead(next);
        if (!next.ok) return;
        const known = next.value.kind === 'table' ? asRemembered(next.value) : [];
        setMeanings(known);
        inHand.make(known, context);
      },
      onMade: setMade,
      onShare: setShare,
    });
    reading.current = inHand;
    return inHand.stop;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a file is read once; the plan does not change how
  }, [file, delimiter]);
  const found = head?.ok ? head.value : null;
  const choose = (table: TableHead, column: number, meaning: ColumnMeaning | 'none') => {
    const next = table.meanings.map((_, at) =>
      at === column ? (meaning === 'none' ? undefined : meaning) : meanings[at],
    );
    setMeanings(next);
    remember(table, next);
    reading.current?.make(next, context);
  };
  const numbered = made !== null && made.slots.size > 0;
  const n = made?.channels.length ?? 0;
  const failed = head !== null && !head.ok;
  return (
    <section
      aria-label={`The file ${file.name}`}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet text-[13px]"
    >
      <p className="shrink-0 border-b border-line px-3 py-2" role="status">
        <b className="font-semibold">{file.name}</b>{' '}
        <span className="text-soft">
          {found
            ? saidOf(found)
            : failed
              ? ''
              : `is being read${share > 0 ? `, ${Math.floor(share * 100)} %` : ''}…`}
        </span>
      </p>
      {failed && <Trouble className="m-3">{head.reason}</Trouble>}
      {found && (
        <Scroll label="What the file has" className="flex-1">
          {found.kind === 'table' && (
            <Columns
              table={found}
              meanings={meanings}
              onDelimiter={setDelimiter}
              onChoose={(column, meaning) => choose(found, column, meaning)}
            />
          )}
          {made && <Comes made={made} />}
        </Scroll>
      )}
      {numbered && n > 0 && (
        <Choice
          label="Channels go"
          value={inSlots ? 'file' : 'free'}
          options={[
            ['file', 'into the slots that the file names'],
            ['free', 'into the next free slots'],
          ]}
          onChange={(where) => setInSlots(where === 'file')}
          className="border-t border-line px-3 py-2"
        />
      )}
      {found && (
        <p className="border-t border-line px-3 py-1.5 text-soft" role="status">
          {made ? countsOf(made) : `is being checked, ${Math.floor(share * 100)} %…`}
        </p>
      )}
      <div className="mt-auto flex shrink-0 gap-2 border-t border-line p-3">
        {made && n > 0 && (
          <Button
            kind="strong"
            className="flex-1"
            onClick={() => {
              void actions.takeFile(made, inSlots && numbered);
              onClose();
            }}
          >
            {n === 1 ? 'Put in 1 channel' : `Put in ${n} channels`}
          </Button>
        )}
        <Button onClick={onClose}>{made || failed ? (n > 0 ? 'Cancel' : 'Close') : 'Stop'}</Button>
      </div>
    </section>
  );
}

const asRemembered = (table: TableHead): Meanings => remembered.now()[kindOf(table)] ?? table.meanings;

function remember(table: TableHead, next: Meanings): void {
  const kind = kindOf(table);
  const others = Object.entries(remembered.now()).filter(([other]) => other !== kind);
  remembered.put(Object.fromEntries([[kind, next] as const, ...others].slice(0, KEPT_KINDS)));
}

function saidOf(found: FileHead): string {
  switch (found.kind) {
    case 'table': {
      const { rows, headings, beyond, encoding } = found;
      return `${rows} rows, ${encoding}${headings ? ', with headings' : ', without headings'}${beyond > 0 ? `; ${beyond} more are not read` : ''}`;
    }
    case 'places':
      return `${found.what}, ${found.places} places`;
    case 'list':
      return `a list of ${found.rows} lines`;
    case 'plan':
      return `the plan “${found.name}”`;
  }
}

const many = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;
const countsOf = ({ channels, odd, refusedCount, beyond }: Made) =>
  [
    many(channels.length, 'channel'),
    ...(odd.length > 0 ? [`${many(odd.length, 'cell')} not understood and marked`] : []),
    ...(refusedCount > 0 ? [`${many(refusedCount, 'row')} not taken`] : []),
    ...(beyond > 0 ? [`${beyond} more than a plan holds`] : []),
  ].join(', ');

/** What the columns of a table are, and what parts its cells; both can be put right. */
function Columns({
  table,
  meanings,
  onDelimiter,
  onChoose,
}: {
  table: TableHead;
  meanings: Meanings;
  onDelimiter: (delimiter: Delimiter) => void;
  onChoose: (column: number, meaning: ColumnMeaning | 'none') => void;
}) {
  return (
    <>
      {table.delimiter !== null && (
        <Choice
          label="Cells are parted by"
          value={table.delimiter}
          options={DELIMITERS}
          onChange={onDelimiter}
          className="px-3 py-2"
        />
      )}
      <ul aria-label="What the columns are" className="border-y border-line">
        {table.meanings.map((_, column) => (
          <li key={column} className="flex items-center gap-2 px-3 py-1">
            <span className="min-w-0 flex-1">
              <span className="block truncate">{table.headings?.[column] || `Column ${column + 1}`}</span>
              <span className="mono block truncate text-[12px] text-soft">
                {table.first[column] || 'empty'}
              </span>
            </span>
            <Choice
              label={`What ${table.headings?.[column] || `column ${column + 1}`} is`}
              hideLabel
              className="w-32"
              value={meanings[column] ?? 'none'}
              options={MEANINGS}
              onChange={(meaning) => onChoose(column, meaning)}
            />
          </li>
        ))}
      </ul>
    </>
  );
}

/** What comes of the rows: the first of them as channels, and those that are not understood. */
function Comes({ made }: { made: Made }) {
  return (
    <>
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
    </>
  );
}
