'use client';

import clsx from 'clsx';
import { Columns3, RadioTower } from 'lucide-react';
import Link from 'next/link';
import { Button, lazily } from '@/ui';
import { useDesk } from './desk';

/** Comes after the table. */
const FactsMenu = lazily(() => import('./facts-menu').then((module) => module.FactsMenu), { after: 200 });

const OutOfPlan = lazily(() => import('./out-of-plan').then((module) => module.OutOfPlan), { after: 300 });

/** The radio's lists: left, right, and the home channels of each. */
function Lists() {
  const { hand, table } = useDesk();
  return (
    <div role="group" aria-label="List" className="flex rounded-md border border-line-strong p-px">
      {hand.model.lists.map(({ name, holds }, list) => (
        <button
          key={name}
          type="button"
          aria-pressed={table.list === list}
          className="whitespace-nowrap rounded-[5px] px-1.5 py-[3px] text-[13px] text-soft hover:text-ink aria-pressed:bg-wash aria-pressed:font-medium aria-pressed:text-ink"
          onClick={() => table.showList(list)}
        >
          <span aria-hidden>{holds === 'home' ? `Home ${name[0]}` : name}</span>
          <span className="sr-only">{name}</span>
          <span className="pl-1 text-[11.5px] tabular-nums">
            {hand.plan.channels.reduce((n, channel) => n + (channel.list === list ? 1 : 0), 0)}
          </span>
        </button>
      ))}
    </div>
  );
}

/** Above the table: find in the plan, what can be done to the chosen, and where more channels come from. */
export function TableBar({
  arranging,
  onArrange,
  onColumns,
}: {
  arranging: boolean;
  onArrange: () => void;
  onColumns: () => void;
}) {
  const { hand, table, actions } = useDesk();
  const none = table.chosenChannels.length === 0;
  return (
    <div
      className="flex shrink-0 items-center gap-1 border-b border-line px-2 py-1.5 max-lg:overflow-x-auto"
      role="toolbar"
      aria-label="Channels"
    >
      <input
        id="find-in-plan"
        type="search"
        aria-label="Find in this plan"
        placeholder={hand.model.lists.length > 1 ? 'Find' : 'Find in this plan'}
        value={table.filter}
        onChange={(event) => table.setFilter(event.target.value)}
        className={clsx(
          'h-7 rounded-md border border-line-strong bg-sheet px-2 text-[13px] placeholder:text-soft',
          hand.model.lists.length > 1 ? 'w-28' : 'w-40 max-[1100px]:w-28',
        )}
      />
      <div className="w-[62px] shrink-0">
        <FactsMenu />
      </div>
      {hand.model.lists.length > 1 && <Lists />}
      <span className="mx-1 h-5 w-px bg-line max-[1100px]:hidden" aria-hidden />
      <Button kind="quiet" size="small" disabled={none} onClick={actions.listenOnly}>
        Listen only
      </Button>
      <Button kind="quiet" size="small" disabled={none} onClick={actions.toggleScan}>
        Scan or skip
      </Button>
      <Button kind="quiet" size="small" disabled={none} onClick={actions.remove}>
        Remove
      </Button>
      <Button
        kind="quiet"
        size="small"
        className="aria-expanded:bg-sunk"
        aria-expanded={arranging}
        disabled={hand.plan.channels.length === 0}
        onClick={onArrange}
      >
        Arrange
      </Button>
      <span className="flex-1" />
      <Button
        kind="quiet"
        size="small"
        className="px-1.5!"
        aria-label="Columns"
        title="Columns: which, in which order, how wide"
        onClick={onColumns}
      >
        <Columns3 size={15} aria-hidden />
      </Button>
      <div
        className={clsx(
          'w-[82px] shrink-0 max-[1100px]:hidden',
          // With a radio of several lists the bar is full; Ctrl K has it.
          hand.model.lists.length > 1 && 'max-[1500px]:hidden',
        )}
      >
        <OutOfPlan />
      </div>
      <Link
        prefetch={false}
        href={`/find?plan=${hand.plan.id}`}
        aria-label="Find stations"
        title="Find stations"
        className="whitespace-nowrap rounded-md border border-line-strong px-2 py-[3px] text-[13px] font-medium hover:bg-sunk"
      >
        {hand.model.lists.length > 2 ? (
          // Four lists leave no room for words on a narrow screen.
          <>
            <RadioTower size={15} aria-hidden className="my-[2px] min-[1500px]:hidden" />
            <span className="max-[1500px]:hidden">Find stations</span>
          </>
        ) : (
          'Find stations'
        )}
      </Link>
    </div>
  );
}
