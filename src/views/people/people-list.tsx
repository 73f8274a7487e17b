'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import clsx from 'clsx';
import { Pin } from 'lucide-react';
import { useRef, type KeyboardEvent, type MouseEvent } from 'react';
import type { ListedPerson } from '@/core/people/person.schema';
import { useStretch } from './use-people';

const ROW_HEIGHT = 30;

const nameOf = ({ first, last }: ListedPerson) => `${first} ${last}`.trim();

/** What a screen reader says of a person, and what stands in the row. */
function Row({ person, chosen }: { person: ListedPerson | undefined; chosen: boolean }) {
  if (!person) return <span className="mono w-20 text-soft">…</span>;
  const { id, call, town, area, mark, known } = person;
  return (
    <>
      <span className="mono w-20 shrink-0">{id}</span>
      <span className="mono w-20 shrink-0 font-semibold">{call || '–'}</span>
      <span className="w-44 shrink-0 truncate">{nameOf(person) || '–'}</span>
      <span className={clsx('min-w-0 flex-1 truncate', !chosen && 'text-soft')}>
        {known ? [town, area].filter(Boolean).join(', ') : 'not in this roll any more'}
      </span>
      {mark?.note && <span className="max-w-48 truncate text-soft">{mark.note}</span>}
      {mark?.pinned && <Pin size={14} aria-label="pinned" className="shrink-0" />}
    </>
  );
}

interface Props {
  label: string;
  /** How many there are; who stands at a place is asked for when it is seen. */
  count: number;
  /** Those who are known already, by their places; all of them where nobody is fetched. */
  people?: readonly ListedPerson[];
  chosen: ListedPerson | null;
  onChoose: (person: ListedPerson) => void;
}

/** A list of any length, of which only what is seen is drawn, and only what is seen is fetched. Arrows go through it. */
export function PeopleList({ label, count, people, chosen, onChoose }: Props) {
  const pane = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => pane.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    initialRect: { width: 700, height: 600 },
  });
  const shown = virtual.getVirtualItems();
  const [first, last] = [shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0];
  const fetched = useStretch(people ? 0 : first, people ? -1 : last);
  const at = (place: number) => (people ? people[place] : fetched(place));
  const place = chosen ? shown.find(({ index }) => at(index)?.id === chosen.id)?.index : undefined;
  const go = (event: KeyboardEvent) => {
    const page = Math.floor((pane.current?.clientHeight ?? 300) / ROW_HEIGHT) - 1;
    const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page };
    const step = steps[event.key];
    if (event.key !== 'Home' && event.key !== 'End' && step === undefined) return;
    event.preventDefault();
    const next = event.key === 'Home' ? 0 : event.key === 'End' ? count - 1 : (place ?? first - 1) + step!;
    const within = Math.max(0, Math.min(count - 1, next));
    virtual.scrollToIndex(within);
    const person = at(within);
    if (person) onChoose(person);
  };
  const press = ({ target }: MouseEvent) => {
    const row = (target as Element).closest<HTMLElement>('[data-place]');
    const person = row ? at(Number(row.dataset.place)) : undefined;
    if (person) onChoose(person);
    pane.current?.focus();
  };
  return (
    <div
      ref={pane}
      role="listbox"
      aria-label={label}
      tabIndex={0}
      onKeyDown={go}
      onClick={press}
      aria-activedescendant={place === undefined ? undefined : `person-${chosen!.id}`}
      className="min-h-0 flex-1 overflow-y-auto"
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {shown.map(({ index, start }) => {
          const person = at(index);
          const isChosen = person !== undefined && person.id === chosen?.id;
          return (
            <div
              key={index}
              id={person && `person-${person.id}`}
              role="option"
              aria-selected={isChosen}
              aria-setsize={count}
              aria-posinset={index + 1}
              data-place={index}
              tabIndex={-1}
              className={clsx(
                'absolute inset-x-0 flex h-[30px] cursor-default items-center gap-3 border-b border-line px-3 text-[13px]',
                isChosen && 'bg-wash',
              )}
              style={{ top: start }}
            >
              <Row person={person} chosen={isChosen} />
            </div>
          );
        })}
      </div>
    </div>
  );
}
