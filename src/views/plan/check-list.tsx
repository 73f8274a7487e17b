'use client';

import clsx from 'clsx';
import { useMemo } from 'react';
import { mendTogether, type Finding } from '@/core/check';
import type { Edit } from '@/core/plan';
import { Button, SeverityMark } from '@/ui';
import { item, useNames, type SideListProps } from './side-list';

/** For the first of several findings that are mended alike: what mends them all. */
function mendedAlike(findings: readonly Finding[]) {
  const seen = new Set<string>();
  const together = new Map<Finding, NonNullable<ReturnType<typeof mendTogether>>>();
  for (const finding of findings) {
    if (!finding.mend) continue;
    const kind = `${finding.rule} ${finding.mend.label}`;
    const all = seen.has(kind) ? undefined : mendTogether(findings, finding);
    seen.add(kind);
    if (all) together.set(finding, all);
  }
  return together;
}

/** What Check says, with its mends. */
export function CheckList({
  hand,
  active,
  onSelect,
  onMend,
}: SideListProps & { onMend: (edit: Edit) => void }) {
  const names = useNames(hand);
  const together = useMemo(() => mendedAlike(hand.findings), [hand.findings]);
  if (hand.findings.length === 0)
    return (
      <p className="p-3 text-[13px] text-soft">
        Nothing to say: everything here will be written as it stands.
      </p>
    );
  return (
    <ul aria-label="Findings">
      {hand.findings.map((finding) => (
        <li
          key={finding.rule + finding.id + finding.field}
          className={clsx(item, finding.id === active && 'bg-wash-faint')}
        >
          <button
            type="button"
            className="flex w-full items-center gap-2 text-left"
            onClick={() => onSelect(finding.id, finding.field)}
          >
            <SeverityMark severity={finding.severity} />
            <span className="mono text-soft">{names.get(finding.id)?.slot}</span>
            <span className="truncate font-medium">{names.get(finding.id)?.name}</span>
          </button>
          <p className="pt-0.5 pl-5 text-soft">{finding.text}</p>
          {finding.source && <p className="pl-5 text-[12px] text-soft">By {finding.source}</p>}
          {finding.mend && (
            <p className="flex flex-wrap gap-1.5 pt-1 pl-5">
              <Button size="small" onClick={() => onMend(finding.mend!.edit)}>
                {finding.mend.label}
              </Button>
              {together.has(finding) && (
                <Button
                  size="small"
                  aria-label={`${finding.mend.label}: all ${together.get(finding)!.count}`}
                  onClick={() => onMend(together.get(finding)!.edit)}
                >
                  All {together.get(finding)!.count}
                </Button>
              )}
              {finding.others?.map((mend) => (
                <Button key={mend.label} size="small" onClick={() => onMend(mend.edit)}>
                  {mend.label}
                </Button>
              ))}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
