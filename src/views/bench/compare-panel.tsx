'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { radioApi } from '@/api/radios';
import type { Copy, CopyComparison } from '@/core/bench';
import { modelById } from '@/core/models';
import type { PlanId } from '@/core/plan';
import { Button, Choice, Trouble } from '@/ui';
import { Changes } from './changes';
import type { PlanName } from './plan-name';

function summaryOf({ change, besides, bytes }: CopyComparison): string {
  const { added, changed, removed, same } = change;
  const n = besides.length;
  const said =
    added.length + changed.length + removed.length + n === 0
      ? `Alike in all ${same} channels and in what stands beside them.`
      : `${added.length} new, ${changed.length} changed, ${removed.length} emptied, ${same} alike.${n === 0 ? '' : ` Beside the channels: ${n === 1 ? '1 change' : `${n} changes`}.`}`;
  if (!bytes) return said;
  const where = bytes.areas.map(({ label, different }) => `${label} ${different}`).join(', ');
  return `${said} ${bytes.different === 0 ? 'Not one byte differs.' : `${bytes.different.toLocaleString()} of ${bytes.of.toLocaleString()} bytes differ: ${where}.`}`;
}

/** In place of a revision: the plan as it is. */
const NOW = 'now';

/** A sealed copy held against another copy, of this unit or another of its model, or against a plan, as it is or as it was when somebody named its state. */
export function ComparePanel({
  copy,
  others,
  plans,
  onClose,
}: {
  copy: Copy;
  /** What it can be held against, with what it is called. */
  others: readonly (readonly [string, string])[];
  plans: PlanName[];
  onClose: () => void;
}) {
  const model = modelById(copy.modelId)!;
  const choices = [...others, ...plans.map(({ id, name }) => [id as string, `Plan: ${name}`] as const)];
  const [chosen, setChosen] = useState(choices[0]?.[0] ?? '');
  const [revision, setRevision] = useState(NOW);
  const planId = chosen.startsWith('cp_') || chosen === '' ? null : (chosen as PlanId);
  // The states of the plan that somebody named, the newest first.
  const marks = useQuery({
    queryKey: ['marks', planId],
    queryFn: () => call(planApi.marks, { params: { id: planId! } }),
    enabled: planId !== null,
    retry: false,
  });
  const states = (marks.data?.marks ?? []).toReversed();
  const against = planId
    ? { plan: planId, ...(revision !== NOW && { revision: Number(revision) }) }
    : { copy: chosen };
  const { data, error } = useQuery({
    queryKey: ['compare', copy.id, chosen, revision],
    queryFn: () => call(radioApi.copyCompare, { params: { id: copy.id }, query: against }),
    enabled: chosen !== '',
    retry: false,
  });
  return (
    <section
      aria-label="Compare"
      className="flex max-h-80 shrink-0 flex-col gap-2 border-t border-line px-3 py-2"
    >
      <div className="flex shrink-0 items-end gap-3">
        {choices.length > 0 && (
          <Choice
            label="What is otherwise in"
            value={chosen}
            options={choices}
            onChange={(next) => {
              setChosen(next);
              setRevision(NOW);
            }}
            className="w-80 min-w-0"
          />
        )}
        {states.length > 0 && (
          <Choice
            label="As it"
            value={revision}
            options={[
              [NOW, 'is now'] as const,
              ...states.map(({ revision: at, name }) => [String(at), `was: ${name}`] as const),
            ]}
            onChange={setRevision}
            className="w-56 min-w-0"
          />
        )}
        <span className="flex-1" />
        <Button size="small" onClick={onClose}>
          Close
        </Button>
      </div>
      <p role="status" className="shrink-0 text-[13px]">
        {choices.length === 0
          ? 'There is no other copy and no plan to hold it against.'
          : data
            ? summaryOf(data)
            : ''}
      </p>
      {error && <Trouble>{error.message}</Trouble>}
      {data && <Changes of={data} model={model} label="What is otherwise" />}
    </section>
  );
}
