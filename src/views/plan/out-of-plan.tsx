'use client';

import clsx from 'clsx';
import { useMemo } from 'react';
import { callFile } from '@/api/call';
import { fileApi } from '@/api/files';
import { PAPER_NAMES, PAPERS } from '@/core/fit';
import { lossesOf, planOf } from '@/core/interchange';
import { countOf, KINDS } from '@/core/plan';
import { OutMenu, type Outgoing } from '@/views/parts/out-menu';
import { useDesk } from './desk';

/** Takes the plan out, whole or what is chosen of it: as a file, or on paper. */
export function OutOfPlan({ className }: { className?: string }) {
  const { hand, table } = useDesk();
  const { plan } = hand;
  const { chosenChannels } = table;
  const what = useMemo((): Outgoing[] => {
    const params = { id: plan.id };
    const whole: Outgoing = {
      key: 'plan',
      label: 'The whole plan',
      take: (as) => callFile(fileApi.export, { params, query: { as } }),
      losses: (format) => lossesOf(plan, format),
    };
    const ids = chosenChannels.map(({ id }) => id);
    if (ids.length < 2) return [whole];
    const some = planOf(plan, new Set(ids));
    return [
      {
        key: 'chosen',
        label: `The ${countOf(ids.length, KINDS.channel)} chosen`,
        take: (as) => callFile(fileApi.exportSome, { params, body: { as, ids } }),
        losses: (format) => lossesOf(some, format),
      },
      whole,
    ];
  }, [plan, chosenChannels]);
  return (
    <OutMenu
      what={what}
      className={clsx(
        'inline-flex items-center gap-0.5 rounded-md px-2 py-1 text-[13px] hover:bg-sunk',
        className,
      )}
    >
      <ul aria-label="On paper" className="border-t border-line pt-2">
        {PAPERS.map((as) => (
          <li key={as}>
            <a
              href={`/plans/${plan.id}/paper?as=${as}`}
              target="_blank"
              className="grid grid-cols-[104px_1fr] items-baseline gap-x-2 rounded px-1.5 py-1 hover:bg-sunk"
            >
              <span className="font-medium">{PAPER_NAMES[as].name}</span>
              <span>{PAPER_NAMES[as].use}</span>
            </a>
          </li>
        ))}
      </ul>
    </OutMenu>
  );
}
