'use client';

import clsx from 'clsx';
import { X } from 'lucide-react';
import { useState } from 'react';
import { EXTRA_NAMES, type Wish } from '@/core/table';
import { Button } from '@/ui';
import { useDesk } from './desk';
import { useKeptFilters } from './kept-filters';
import { HEADINGS } from './channel-row';

/** How what was typed was read, a mark a wish; how many rows that leaves; and in which order they are looked at. */
export function WishRow() {
  const { hand, table, actions } = useDesk();
  const { wishes, order, rows } = table;
  const kept = useKeptFilters();
  const [naming, setNaming] = useState<string | null>(null);
  const typed = table.filter.trim();
  const isKept = kept.all.some(({ text }) => text === typed);
  return (
    <div
      role="group"
      aria-label="What is shown"
      className="flex shrink-0 flex-wrap items-center gap-1.5 border-b border-line bg-paper px-2 py-1 text-[12.5px]"
    >
      {wishes.map((wish, at) => (
        <WishMark
          key={`${at} ${wish.text}`}
          wish={wish}
          onDrop={() =>
            table.setFilter(
              wishes
                .filter((one) => one !== wish)
                .map(typedAgain)
                .join(' '),
            )
          }
        />
      ))}
      {table.filtered && (
        <span role="status" className="text-soft">
          {rows.length} of {hand.plan.channels.length}
        </span>
      )}
      {order && (
        <>
          <span className="text-soft">
            by {{ ...HEADINGS, ...EXTRA_NAMES }[order.by].toLowerCase()},{' '}
            {order.down ? 'from the end' : 'from the beginning'}
          </span>
          <Button kind="quiet" size="small" className="h-6!" onClick={actions.intoView}>
            Move into this order
          </Button>
          <Button kind="quiet" size="small" className="h-6!" onClick={() => table.setOrder(null)}>
            By slot again
          </Button>
        </>
      )}
      <span className="flex-1" />
      {table.filtered && naming === null && (
        <Button
          kind="quiet"
          size="small"
          className="h-6!"
          onClick={() => (isKept ? kept.drop(typed) : setNaming(typed))}
        >
          {isKept ? 'Forget this filter' : 'Keep this filter'}
        </Button>
      )}
      {table.filtered && naming !== null && (
        <form
          className="flex items-center gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            if (naming.trim() !== '') kept.keep(naming.trim(), typed);
            setNaming(null);
          }}
        >
          <input
            aria-label="Name of this filter"
            autoFocus
            maxLength={40}
            value={naming}
            onFocus={(event) => event.currentTarget.select()}
            onChange={(event) => setNaming(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && setNaming(null)}
            className="h-6 w-36 rounded-md border border-line-strong bg-sheet px-1.5"
          />
          <Button size="small" className="h-6!" type="submit">
            Keep
          </Button>
        </form>
      )}
    </div>
  );
}

/** A wish as it can be typed. */
const typedAgain = ({ not, kind, text }: Wish) =>
  `${not ? '-' : ''}${kind === 'words' && text.includes(' ') ? `"${text}"` : text}`;

function WishMark({ wish, onDrop }: { wish: Wish; onDrop: () => void }) {
  const { not, kind, text } = wish;
  return (
    <span
      className={clsx(
        'inline-flex items-center gap-1 rounded-full border px-2 py-px',
        kind === 'fact' ? 'border-line-strong bg-wash' : 'border-dashed border-line-strong bg-sheet',
      )}
    >
      {not && <b className="font-semibold">not</b>}
      {kind === 'fact' ? text : `“${text}”`}
      <button
        type="button"
        aria-label={`Without ${not ? 'not ' : ''}${text}`}
        className="rounded-full p-0.5 hover:bg-sunk"
        onClick={onDrop}
      >
        <X size={11} aria-hidden />
      </button>
    </span>
  );
}
