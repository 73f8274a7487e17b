'use client';

import { useId } from 'react';
import { Button, SeverityMark } from '@/ui';
import type { Organising } from './use-organise';

/** What Check says of zones or quick set-ups, each with its ways out. */
export function BesidesList({
  organising,
  kind,
  id,
}: {
  organising: Organising;
  kind: 'zone' | 'setUp' | 'scanList';
  /** Of one record alone. */
  id?: string;
}) {
  const label = useId();
  const found = organising.besides.filter((one) => one.kind === kind && (id === undefined || one.id === id));
  if (found.length === 0) return null;
  return (
    <ul aria-labelledby={label} className="flex flex-col gap-2 text-[13px]">
      <li id={label} className="sr-only">
        Findings
      </li>
      {found.map(({ rule, severity, text, mends }) => (
        <li key={`${rule} ${text}`} className="flex gap-2">
          <span className="pt-[3px]">
            <SeverityMark severity={severity} size={11} />
          </span>
          <div className="min-w-0 flex-1">
            <p>{text}</p>
            {mends.length > 0 && (
              <p className="flex flex-wrap gap-1.5 pt-1">
                {mends.map(({ label: does, edit }) => (
                  <Button key={does} size="small" onClick={() => organising.run(edit, `${does}: done.`)}>
                    {does}
                  </Button>
                ))}
              </p>
            )}
          </div>
        </li>
      ))}
    </ul>
  );
}
