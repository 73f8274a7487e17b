'use client';

import clsx from 'clsx';
import { Keys } from '@/ui';
import { takesLetters } from './selection';
import { useDesk } from './desk';

function Hint({ keys, text, wide = false }: { keys: string; text: string; wide?: boolean }) {
  return (
    <span
      className={clsx(
        'items-center gap-1.5 whitespace-nowrap text-soft',
        wide ? 'hidden min-[1200px]:flex' : 'flex',
      )}
    >
      <Keys keys={keys} />
      {text}
    </span>
  );
}

/** What the keys do here, what was said last, how many are chosen, and how full the radio is. */
export function PlanFooter() {
  const { hand, table, actions } = useDesk();
  const { name, lists } = hand.model;
  const slots = table.range;
  const used =
    lists.length > 1
      ? hand.plan.channels.filter(({ list }) => list === table.list).length
      : hand.plan.channels.length;
  const elsewhere = hand.elsewhere && `Done in another window: ${hand.elsewhere}`;
  const trouble = hand.trouble ?? (actions.said || table.remark || elsewhere);
  const letters = takesLetters(table.selection.active.column);
  return (
    <footer className="flex h-9 shrink-0 overflow-hidden max-lg:sticky max-lg:bottom-0 max-lg:bg-paper items-center gap-4 border-t border-line-strong px-4 text-[12.5px]">
      <div role="status" aria-live="polite" className="contents">
        {trouble ? (
          <span className="flex min-w-0 items-center gap-2">
            <span className="truncate" title={trouble}>
              {trouble}
            </span>
            <button
              type="button"
              className="shrink-0 text-soft underline"
              onClick={() => {
                hand.store.dismiss();
                actions.setSaid('');
                table.setRemark('');
                hand.setElsewhere('');
              }}
            >
              all right
            </button>
          </span>
        ) : (
          <>
            <Hint keys="Enter" text="type in the cell" />
            {letters ? (
              <>
                <Hint keys="Ctrl Enter" text="set on all chosen" />
                <Hint keys="Ctrl D" text="fill down" wide />
              </>
            ) : (
              <>
                <Hint keys="L" text="listen only" />
                <Hint keys="S" text="scan or skip" />
                <Hint keys="M" text="move to a slot" wide />
              </>
            )}
            <Hint keys="Ctrl K" text="everything by name" wide />
            <Hint keys="?" text="all keys" />
          </>
        )}
      </div>
      <span className="flex-1" />
      {table.chosen.size > 1 && (
        <span className="whitespace-nowrap font-medium">{table.chosen.size} chosen</span>
      )}
      <span className="flex items-center gap-2 whitespace-nowrap text-soft">
        {used} of {slots.count} slots of the {name}
        <span
          className="hidden h-1.5 w-24 overflow-hidden min-[1100px]:block rounded-full bg-line"
          aria-hidden
        >
          <span
            className="block h-full bg-ink"
            style={{ width: `${Math.min(100, (used / slots.count) * 100)}%` }}
          />
        </span>
      </span>
    </footer>
  );
}
