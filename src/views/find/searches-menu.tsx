'use client';

import { Bookmark, X } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { browserStore, Button } from '@/ui';
import type { Query, Search } from './use-search';

interface Kept {
  name: string;
  query: Query;
  show: string;
}

/** Most that a browser keeps. */
const MOST = 40;

const isKept = (one: unknown): one is Kept => {
  const { name, query, show } = (one ?? {}) as Partial<Kept>;
  return (
    typeof name === 'string' &&
    typeof show === 'string' &&
    typeof query === 'object' &&
    (query.kind === 'around'
      ? typeof query.place?.lat === 'number' && typeof query.km === 'number'
      : query.kind === 'along' && Array.isArray(query.places) && query.places.length > 1)
  );
};

/** Searches that were given a name: kept in this browser. */
const store = browserStore('veridon-searches', (text): readonly Kept[] => {
  try {
    const kept: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(kept) ? kept.filter(isKept).slice(0, MOST) : [];
  } catch {
    return [];
  }
});

/** Keeps the search under a name, and goes back to one that was kept. */
export function SearchesMenu({ search }: { search: Search }) {
  const kept = store.use();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const { query, show } = search;
  const usual =
    query === null
      ? ''
      : query.kind === 'around'
        ? query.place.name
        : query.places.map((one) => one.name).join(' > ');
  const keep = () => {
    if (!query) return;
    const called = (name.trim() || usual).slice(0, 60);
    store.put([{ name: called, query, show }, ...kept.filter((one) => one.name !== called)].slice(0, MOST));
    setName('');
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        title="Kept searches"
        className="inline-flex h-8 items-center gap-1 rounded-md border border-line-strong bg-sheet px-2 text-[13px] hover:bg-sunk"
      >
        <Bookmark size={14} aria-hidden />
        <span className="sr-only">Kept searches</span>
        {kept.length > 0 && <span aria-hidden>{kept.length}</span>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Kept searches"
          className="z-40 flex w-72 flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 text-[13px] shadow-lg"
        >
          {query ? (
            <div className="flex gap-1.5">
              <input
                aria-label="Name of this search"
                placeholder={usual}
                value={name}
                maxLength={60}
                onChange={(event) => setName(event.target.value)}
                onKeyDown={(event) => event.key === 'Enter' && keep()}
                className="h-7 min-w-0 flex-1 rounded-md border border-line-strong bg-sheet px-2 placeholder:text-soft"
              />
              <Button size="small" onClick={keep}>
                Keep
              </Button>
            </div>
          ) : (
            <p className="text-soft">Search first; then it can be kept here under a name.</p>
          )}
          {kept.length > 0 && (
            <ul className="flex max-h-64 flex-col overflow-y-auto">
              {kept.map((one) => (
                <li key={one.name} className="flex items-center border-t border-line">
                  <button
                    type="button"
                    className="min-w-0 flex-1 truncate py-1 text-left hover:underline"
                    onClick={() => {
                      search.setShow(one.show);
                      search.take(one.query);
                      setOpen(false);
                    }}
                  >
                    {one.name}{' '}
                    <span className="text-soft">
                      {one.query.kind === 'along' ? 'route' : `${Math.round(one.query.km)} km`}
                      {one.show && `, ${one.show}`}
                    </span>
                  </button>
                  <button
                    type="button"
                    aria-label={`Forget ${one.name}`}
                    className="grid size-6 place-items-center text-soft hover:text-ink"
                    onClick={() => store.put(kept.filter((other) => other !== one))}
                  >
                    <X size={13} aria-hidden />
                  </button>
                </li>
              ))}
            </ul>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
