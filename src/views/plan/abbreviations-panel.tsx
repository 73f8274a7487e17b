'use client';

import { X } from 'lucide-react';
import { useMemo, useRef, useState, type FormEvent } from 'react';
import { fitNames } from '@/core/fit';
import { ABBREVIATIONS, abbreviationsOf, abbreviationsSchema, type Abbreviations } from '@/core/plan';
import { Button, useEscape } from '@/ui';
import { useDesk } from './desk';

interface Row {
  key: number;
  word: string;
  short: string;
}

const rowsOf = (list: Abbreviations): Row[] => list.map(([word, short], key) => ({ key, word, short }));
const isEmpty = ({ word, short }: Row) => word.trim() === '' && short.trim() === '';

/** The list that the rows come to, or what is wrong with which of them. */
function read(rows: readonly Row[]) {
  const filled = rows.filter((row) => !isEmpty(row));
  const parsed = abbreviationsSchema.safeParse(filled.map(({ word, short }) => [word, short]));
  if (parsed.success) return { ok: true as const, list: parsed.data };
  const { path, message } = parsed.error.issues[0]!;
  const row = typeof path[0] === 'number' ? filled[path[0]] : undefined;
  const what = path[1] === 1 ? `The short form of “${row?.word}”` : `“${row?.word ?? 'The list'}”`;
  return { ok: false as const, reason: `${row ? what : 'The list'} ${message}.` };
}

/** The short forms that this plan's names are fitted with; how many names would read otherwise is shown as they are typed. */
export function AbbreviationsPanel({ onClose }: { onClose: () => void }) {
  const { hand } = useDesk();
  const { plan, model } = hand;
  const [rows, setRows] = useState(() => rowsOf(abbreviationsOf(plan)));
  const next = useRef(1000);
  const end = useRef<HTMLLIElement>(null);
  const result = useMemo(() => read(rows), [rows]);
  const changed = useMemo(() => {
    if (!result.ok) return [];
    const now = fitNames(plan.channels, model, abbreviationsOf(plan));
    return fitNames(plan.channels, model, result.list)
      .map((name, index) => ({ from: now[index]!.text, to: name.text }))
      .filter(({ from, to }) => from !== to);
  }, [plan, model, result]);
  useEscape(onClose);

  const set = (key: number, part: Partial<Row>) =>
    setRows(rows.map((row) => (row.key === key ? { ...row, ...part } : row)));
  const add = () => {
    setRows([...rows, { key: next.current++, word: '', short: '' }]);
    setTimeout(() => end.current?.querySelector('input')?.focus(), 0);
  };
  const usual = result.ok && JSON.stringify(result.list) === JSON.stringify(ABBREVIATIONS);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (!result.ok) return;
    const abbreviations = usual ? null : result.list;
    if (JSON.stringify(abbreviations) !== JSON.stringify(plan.abbreviations))
      hand.store.apply({ name: 'describe', set: { abbreviations } });
    onClose();
  };
  const field = 'h-7 min-w-0 rounded-md border border-line-strong bg-sheet px-2 text-[13px]';
  return (
    <form
      aria-label="Abbreviations"
      onSubmit={keep}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line-strong bg-sheet"
    >
      <div className="flex items-center justify-between border-b border-line px-3 py-1.5">
        <b className="text-[13px] font-semibold">Abbreviations</b>
        {!usual && (
          <Button kind="quiet" size="small" onClick={() => setRows(rowsOf(ABBREVIATIONS))}>
            The usual ones
          </Button>
        )}
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto p-2" aria-label="Words and their short forms">
        {rows.map(({ key, word, short }, index) => (
          <li
            key={key}
            ref={index === rows.length - 1 ? end : undefined}
            className="grid grid-cols-[1fr_4.5rem_auto] gap-1 py-0.5"
          >
            <input
              aria-label={`Word ${index + 1}`}
              className={field}
              maxLength={32}
              value={word}
              onChange={(event) => set(key, { word: event.target.value })}
            />
            <input
              aria-label={`Short form of ${word || 'this word'}`}
              className={`mono ${field}`}
              maxLength={12}
              value={short}
              onChange={(event) => set(key, { short: event.target.value })}
            />
            <Button
              kind="quiet"
              size="icon"
              aria-label={`Remove ${word || 'this row'}`}
              onClick={() => setRows(rows.filter((row) => row.key !== key))}
            >
              <X size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <p role="status" className="min-h-14 border-t border-line px-3 py-2 text-[13px] text-soft">
        {!result.ok ? (
          <span className="text-stop">{result.reason}</span>
        ) : changed.length === 0 ? (
          `All names on the ${model.name} stay as they are.`
        ) : (
          `${changed.length === 1 ? '1 name' : `${changed.length} names`} on the ${model.name} will read otherwise: ${changed
            .slice(0, 3)
            .map(({ from, to }) => `${from} → ${to}`)
            .join(', ')}${changed.length > 3 ? ', …' : '.'}`
        )}
      </p>
      <div className="flex gap-2 border-t border-line p-3">
        <Button kind="strong" type="submit" className="flex-1" disabled={!result.ok}>
          Use these
        </Button>
        <Button onClick={add}>Add</Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
