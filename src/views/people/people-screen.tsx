'use client';

import clsx from 'clsx';
import { useState } from 'react';
import { Field, Trouble, useCommands } from '@/ui';
import { ChoosePane } from './choose-pane';
import { useChoose } from './use-choose';
import { PeopleList } from './people-list';
import { PersonPane } from './person-pane';
import { NoRoll, RollPanel } from './roll-panel';
import { usePeople } from './use-people';

const grouped = (n: number) => n.toLocaleString('en');

/** People: everybody who has a number, found as one types; pins and notes of one's own; the roll that they come from. */
export function PeopleScreen() {
  const hand = usePeople();
  const { roll, wanted, found, marked, chosen, setChosen } = hand;
  useCommands('people', [
    { id: 'load-roll', label: 'Load the Ident Roll anew', group: 'People', run: () => hand.load.mutate() },
  ]);
  const all = roll.data?.roll?.people ?? 0;
  const own = marked.data?.people ?? [];
  const hits = found.data?.people ?? [];
  const more = found.data?.more ?? false;
  const list = { chosen, onChoose: setChosen };
  const choosing = useChoose();
  const [page, setPage] = useState<'find' | 'choose'>('find');
  return (
    <main className="flex h-full min-w-0 gap-4 px-4 pb-3 pt-3 max-lg:flex-col max-lg:overflow-y-auto">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-2.5 max-lg:min-h-[420px]">
        <div className="flex items-end gap-4">
          <h1 className="text-[21px] font-semibold leading-8">People</h1>
          {all > 0 && (
            <div
              role="group"
              aria-label="What to do"
              className="flex rounded-md border border-line-strong p-0.5"
            >
              {(['find', 'choose'] as const).map((one) => (
                <button
                  key={one}
                  type="button"
                  aria-pressed={page === one}
                  className={clsx(
                    'rounded px-3 py-1 text-[13.5px]',
                    page === one ? 'bg-sheet font-semibold' : 'text-soft',
                  )}
                  onClick={() => setPage(one)}
                >
                  {one === 'find' ? 'Find' : 'Choose for a radio'}
                </button>
              ))}
            </div>
          )}
          {all > 0 && page === 'find' && (
            <>
              <Field
                label="Number, call sign, name or place"
                type="search"
                className="w-80"
                value={hand.words}
                maxLength={100}
                onChange={(event) => hand.setWords(event.target.value)}
              />
              <p role="status" className="pb-1.5 text-[13px] text-soft">
                {wanted === ''
                  ? `All ${grouped(all)}`
                  : more
                    ? `The first ${hits.length}; type more to come to one`
                    : hits.length === 0
                      ? found.isFetching
                        ? ''
                        : 'Nobody'
                      : `${hits.length} found`}
              </p>
            </>
          )}
        </div>
        {roll.error && <Trouble>{roll.error.message}</Trouble>}
        {found.error && <Trouble>{found.error.message}</Trouble>}
        {roll.data && !roll.data.roll ? (
          <NoRoll hand={hand} />
        ) : page === 'choose' ? (
          <ChoosePane {...{ choosing, rollPeople: all }} />
        ) : (
          <section
            aria-label="People"
            className="flex min-h-0 flex-1 flex-col rounded-md border border-line bg-sheet"
          >
            <p
              aria-hidden
              className="flex gap-3 border-b border-line-strong px-3 py-1.5 text-[13px] text-soft"
            >
              <span className="w-20">Number</span>
              <span className="w-20">Call sign</span>
              <span className="w-44">Name</span>
              <span>Place</span>
            </p>
            {wanted === '' ? (
              <PeopleList label="All people" count={all} {...list} />
            ) : (
              <PeopleList key={wanted} label="Found" count={hits.length} people={hits} {...list} />
            )}
          </section>
        )}
      </div>
      {roll.data?.roll && page === 'find' && (
        <aside
          aria-label="Beside the list"
          className="flex w-[300px] shrink-0 flex-col gap-3 overflow-y-auto *:shrink-0 max-lg:w-full"
        >
          {chosen ? (
            <PersonPane key={chosen.id} person={chosen} hand={hand} />
          ) : (
            <p className="rounded-md border border-line bg-sheet p-3 text-[13px] text-soft">
              Choose somebody: their number in both ways of writing it, a pin, a note.
            </p>
          )}
          {own.length > 0 && (
            <section
              aria-label="Pinned and noted"
              className="flex flex-col rounded-md border border-line bg-sheet"
            >
              <h2 className="border-b border-line px-3 py-1.5 text-[13px] font-semibold">Pinned and noted</h2>
              <ul className="max-h-64 overflow-y-auto">
                {own.map((person) => (
                  <li key={person.id} className="border-b border-line last:border-0">
                    <button
                      type="button"
                      aria-pressed={person.id === chosen?.id}
                      className="w-full px-3 py-1 text-left text-[13px] aria-pressed:bg-wash"
                      onClick={() => setChosen(person)}
                    >
                      <span className="mono font-semibold">{person.call || person.id}</span>{' '}
                      {`${person.first} ${person.last}`.trim()}
                      {person.mark?.note && (
                        <span className="block truncate text-soft">{person.mark.note}</span>
                      )}
                    </button>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <RollPanel hand={hand} />
        </aside>
      )}
    </main>
  );
}
