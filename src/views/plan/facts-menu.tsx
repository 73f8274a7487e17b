'use client';

import { Popover } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { useMemo, useState } from 'react';
import { factsFor, type FactOffer } from '@/core/table';
import { useDesk } from './desk';
import { useKeptFilters } from './kept-filters';

/** What can be asked for beside words: the facts that hold for some of the channels, and filters that were kept. */
export function FactsMenu() {
  const { hand, table } = useDesk();
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label="Show by facts"
        className="inline-flex h-7 items-center gap-1 rounded-md px-1.5 text-[13px] hover:bg-sunk"
      >
        Facts <ChevronDown size={13} aria-hidden className="text-soft" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label="Facts"
          className="z-40 max-h-[min(70vh,var(--radix-popover-content-available-height))] w-[34rem] max-w-[94vw] overflow-y-auto rounded-md border border-line-strong bg-sheet p-3 text-[13px] shadow-lg"
        >
          {open && (
            <Facts
              plan={hand.plan}
              onPick={(typed) => {
                table.setFilter(typed);
                setOpen(false);
                document.getElementById('find-in-plan')?.focus();
              }}
            />
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Facts({
  plan,
  onPick,
}: {
  plan: ReturnType<typeof useDesk>['hand']['plan'];
  onPick: (typed: string) => void;
}) {
  const { hand, table } = useDesk();
  const kept = useKeptFilters();
  const { factContext } = table;
  const { number } = hand.shown.views;
  const offers = useMemo(() => {
    return factsFor(plan.owner)
      .map((fact) => ({
        fact,
        n: plan.channels.reduce((n, channel) => n + (fact.holds(channel, factContext) ? 1 : 0), 0),
      }))
      .filter(({ n }) => n > 0);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what Check says is read through the context, and its number says that it changed
  }, [plan, factContext, number]);
  const tags = useMemo(() => {
    const counts = new Map<string, number>();
    for (const { tags: own = [] } of plan.channels)
      for (const tag of own) counts.set(tag, (counts.get(tag) ?? 0) + 1);
    return [...counts].sort(([a], [b]) => a.localeCompare(b));
  }, [plan.channels]);
  const add = (text: string) => onPick(`${table.filter.trim()} ${text}`.trim());
  const chip = (key: string, text: string, says: string, n: number, typed: string) => (
    <li key={key}>
      <button
        type="button"
        title={says}
        className="rounded-full border border-line-strong px-2 py-px hover:bg-sunk"
        onClick={() => add(typed)}
      >
        {text} <span className="text-[11.5px] text-soft tabular-nums">{n}</span>
      </button>
    </li>
  );
  const typedOf = ({ name }: FactOffer) => name;
  return (
    <>
      <ul aria-label="Facts that hold for some" className="flex flex-wrap gap-1.5">
        {offers.map(({ fact, n }) => chip(fact.name, fact.name, fact.says, n, typedOf(fact)))}
        {tags.map(([tag, n]) => chip(`#${tag}`, `#${tag}`, 'has this tag', n, `#${tag}`.replaceAll(' ', '')))}
      </ul>
      {kept.all.length > 0 && (
        <>
          <p className="pb-1 pt-3 font-semibold">Kept</p>
          <ul aria-label="Kept filters" className="flex flex-wrap gap-1.5">
            {kept.all.map(({ name, text }) => (
              <li key={text}>
                <button
                  type="button"
                  className="rounded-full border border-line-strong bg-wash px-2 py-px hover:bg-sunk"
                  title={text}
                  onClick={() => onPick(text)}
                >
                  {name}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="pt-3 text-soft">
        Several at once hold together: <span className="mono">hill 2 m -dmr</span>. A dash turns one round,
        quotes make it plain words, <span className="mono">power&gt;1W</span>,{' '}
        <span className="mono">rx&lt;145.7</span> and <span className="mono">#tag</span> are understood too.
      </p>
    </>
  );
}
