'use client';

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Radio } from '@/core/bench';
import type { Edit, PlanId } from '@/core/plan';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { radioApi } from '@/api/radios';
import { Button, Moment, Scroll, Trouble } from '@/ui';

const MARK = { changed: 'changed', added: 'new', removed: 'emptied' } as const;

/** What was done on the radio's own keys since the plan was written to it: the radio's word and the plan's, to take one by one or all. */
export function ByHandPanel({ radio, planId, planName }: { radio: Radio; planId: PlanId; planName: string }) {
  const client = useQueryClient();
  const done = useQuery({
    queryKey: ['by hand', radio.id, planId, radio.copies[0]?.id],
    queryFn: () => call(radioApi.byHand, { params: { id: radio.id }, query: { plan: planId } }),
    refetchOnWindowFocus: true,
    retry: false,
  });
  const take = useMutation({
    mutationFn: async (edit: Edit) => {
      const { revision } = await call(planApi.plan, { params: { id: planId } });
      return call(planApi.edit, { params: { id: planId }, body: { base: revision, edit } });
    },
    onSettled: () => client.invalidateQueries(),
  });
  const { since, changes = [], all = null, besides = [] } = done.data ?? {};
  if (!since || changes.length + besides.length === 0) return null;
  return (
    <section
      aria-label="Done on its keys"
      className="flex min-h-0 shrink-0 flex-col rounded-md border border-caution-mark bg-sheet"
    >
      <div className="flex items-center gap-3 border-b border-line px-3 py-1.5 text-[13px]">
        <h3 className="min-w-0 flex-1">
          <b className="font-semibold">Done on its keys</b>{' '}
          <span className="text-soft">
            since “{planName}” was written <Moment at={since.at} />. A write takes it back; take into the plan
            what is to stay.
          </span>
        </h3>
        {all && (
          <Button size="small" disabled={take.isPending} onClick={() => take.mutate(all)}>
            Take all into the plan
          </Button>
        )}
      </div>
      <Scroll label="What was done" className="max-h-44">
        <ul className="text-[13px]">
          {changes.map(({ place, name, what, radio: says, plan, edit }) => (
            <li
              key={`${place} ${what}`}
              className="flex items-baseline gap-3 border-b border-line px-3 py-1 last:border-0"
            >
              <span className="w-16 shrink-0 text-soft">{MARK[what]}</span>
              <span className="mono shrink-0 text-soft">{place}</span>
              <span className="w-36 shrink-0 truncate font-medium">{name || 'no name'}</span>
              <span className="min-w-0 flex-1">
                {says}
                {plan !== null && <span className="text-caution"> · the plan meanwhile: {plan}</span>}
              </span>
              <Button
                kind="quiet"
                size="small"
                disabled={take.isPending}
                aria-label={`Take ${place}, ${name}: ${says}`}
                onClick={() => take.mutate(edit)}
              >
                {plan === null ? 'Take' : 'Take the radio’s'}
              </Button>
            </li>
          ))}
          {besides.map(({ mark, title, text }) => (
            <li
              key={title}
              className="flex items-baseline gap-3 border-b border-line px-3 py-1 last:border-0"
            >
              <span className="w-16 shrink-0 text-soft">{mark}</span>
              <span className="shrink-0 font-medium">{title}</span>
              <span className="min-w-0 flex-1 text-soft">{text}</span>
            </li>
          ))}
        </ul>
      </Scroll>
      {take.error && <Trouble className="m-2">{take.error.message}</Trouble>}
    </section>
  );
}
