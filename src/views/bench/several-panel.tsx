'use client';

import { useMutation, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { Batch, Radio } from '@/core/bench';
import type { PlanId } from '@/core/plan';
import { Button, Choice, Scroll, TickField, Trouble } from '@/ui';
import type { PlanName } from './plan-name';
import { UnitValueFields, type UnitValues } from './unit-values';

type Own = Record<string, UnitValues>;

/** How often a batch under way is looked at, ms. */
const LOOK_MS = 300;

/** One plan to several radios: which, what is each one's own, in a row or at once; then what came of each. */
export function SeveralPanel({
  radios,
  plans,
  planId,
  onClose,
}: {
  radios: Radio[];
  plans: PlanName[];
  planId: PlanId | null;
  onClose: () => void;
}) {
  const here = radios.filter(({ port }) => port !== null);
  const [chosen, setChosen] = useState<PlanId | null>(planId ?? plans[0]?.id ?? null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [together, setTogether] = useState<'row' | 'once'>('once');
  const [own, setOwn] = useState<Own>(() => Object.fromEntries(here.map((radio) => [radio.id, radio.own])));
  const [id, setId] = useState<string | null>(null);
  const wanted = here.filter((radio) => !left.has(radio.id));
  const start = useMutation({
    mutationFn: async () => {
      const plan = plans.find((one) => one.id === chosen)!;
      const { planRevision } = await call(radioApi.writePreview, {
        params: { id: wanted[0]!.id },
        query: { plan: plan.id },
      });
      return call(radioApi.startSeveral, {
        body: {
          planId: plan.id,
          planRevision,
          together: together === 'once',
          radios: wanted.map((radio) => ({ radioId: radio.id, own: own[radio.id] ?? {} })),
        },
      });
    },
    onSuccess: (batch) => setId(batch.id),
  });
  const batch = useQuery({
    queryKey: ['several', id],
    queryFn: () => call(radioApi.several, { params: { id: id! } }),
    enabled: id !== null,
    refetchInterval: ({ state }) => (state.data?.running === false ? false : LOOK_MS),
  });
  return (
    <section
      aria-label="Write to several"
      className="flex min-h-0 flex-col gap-2.5 rounded-md border border-line bg-sheet p-3"
    >
      <div className="flex items-end gap-3">
        <Choice
          label="Write the plan"
          value={chosen ?? ''}
          options={plans.map((plan) => [plan.id, plan.name] as const)}
          onChange={(value) => setChosen(value as PlanId)}
          className="w-60"
        />
        <Choice
          label="To each"
          value={together}
          options={[
            ['once', 'all at once'],
            ['row', 'one after the other'],
          ]}
          onChange={setTogether}
          className="w-44"
        />
        <span className="flex-1" />
        <Button onClick={onClose}>Back to one radio</Button>
        <Button
          kind="strong"
          disabled={chosen === null || wanted.length === 0 || start.isPending || batch.data?.running === true}
          onClick={() => start.mutate()}
        >
          Write to {wanted.length === 1 ? '1 radio' : `${wanted.length} radios`}
        </Button>
      </div>
      {start.error && <Trouble>{start.error.message}</Trouble>}
      <Scroll label="Radios that are written">
        <ul>
          {here.map((radio) => (
            <li
              key={radio.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1.5 text-[13px] last:border-0"
            >
              <TickField
                checked={!left.has(radio.id)}
                onChange={(take) =>
                  setLeft((before) => {
                    const next = new Set(before);
                    if (take) next.delete(radio.id);
                    else next.add(radio.id);
                    return next;
                  })
                }
              >
                {radio.model} <span className="mono text-soft">{radio.called}</span>
              </TickField>
              <UnitValueFields
                radio={radio}
                values={own[radio.id] ?? {}}
                onChange={(values) => setOwn((before) => ({ ...before, [radio.id]: values }))}
              />
            </li>
          ))}
        </ul>
      </Scroll>
      {batch.data && <Report batch={batch.data} />}
    </section>
  );
}

const STATES = { waiting: 'waits', running: 'is written', done: 'done', failed: 'failed' } as const;

/** What came of each: for the screen, and for paper. */
export function Report({ batch: { id, planName, planRevision, rows, running } }: { batch: Batch }) {
  const done = rows.filter(({ state }) => state === 'done').length;
  const failed = rows.filter(({ state }) => state === 'failed').length;
  return (
    <section aria-label="Report" className="min-h-0 border-t border-line pt-2 text-[13px]">
      <div className="flex items-baseline gap-3">
        <p role="status" className="flex-1">
          <b className="font-semibold">{planName}</b>, revision {planRevision}: {done} of {rows.length}{' '}
          written and proved
          {failed > 0 && <span className="text-stop">, {failed} not</span>}
          {running && ', the others are under way'}.
        </p>
        <a className="underline print:hidden" href={`/bench/report/${id}`} target="_blank" rel="noreferrer">
          Print the report
        </a>
      </div>
      <ul>
        {rows.map(({ radioId, called, model, state, message, proved }) => (
          <li key={radioId} className="flex items-baseline gap-3 border-b border-line py-1 last:border-0">
            <span className="w-36 shrink-0">{model}</span>
            <span className="mono w-24 shrink-0">{called}</span>
            <span className={clsx('w-20 shrink-0 font-medium', state === 'failed' && 'text-stop')}>
              {STATES[state]}
            </span>
            <span className="min-w-0 flex-1 text-soft">
              {state === 'done'
                ? `${proved.toLocaleString('en')} bytes read back as they were sent`
                : message}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
