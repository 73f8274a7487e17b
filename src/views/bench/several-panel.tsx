'use client';

import { useMutation, useQueries, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import type { Batch, Radio, WritePreview } from '@/core/bench';
import type { PlanId } from '@/core/plan';
import { Button, Choice, Scroll, TickField, Trouble } from '@/ui';
import type { PlanName } from './plan-name';
import { UnitValueFields, type UnitValues } from './unit-values';
import { hindranceOf, summaryOf, warningsOf } from './write-words';

type Own = Record<string, UnitValues>;

/** How often a batch under way is looked at, ms. */
const LOOK_MS = 300;

/**
 * One plan to several radios: which, what is each one's own, in a row or at once; what it changes in each, and the question; then what came
 * of each.
 */
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
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState(false);
  const [together, setTogether] = useState<'row' | 'once'>('once');
  const [own, setOwn] = useState<Own>(() => Object.fromEntries(here.map((radio) => [radio.id, radio.own])));
  const [id, setId] = useState<string | null>(null);
  const wanted = here.filter((radio) => taken.has(radio.id));
  const previews = useQueries({
    queries: wanted.map((radio) => ({
      queryKey: ['preview', radio.id, chosen, radio.copies[0]?.id],
      queryFn: () => call(radioApi.writePreview, { params: { id: radio.id }, query: { plan: chosen! } }),
      enabled: asking && chosen !== null,
      refetchOnWindowFocus: true,
      retry: false,
    })),
  });
  const seen = previews.flatMap(({ data }) => data ?? []);
  const start = useMutation({
    mutationFn: () =>
      call(radioApi.startSeveral, {
        body: {
          planId: chosen!,
          // The oldest that was looked at: where the plan has changed since, nothing is written.
          planRevision: Math.min(...seen.map(({ planRevision }) => planRevision)),
          together: together === 'once',
          radios: wanted.map((radio) => ({ radioId: radio.id, own: own[radio.id] ?? radio.own })),
        },
      }),
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
        {!asking && (
          <Button
            kind="strong"
            disabled={
              chosen === null || wanted.length === 0 || start.isPending || batch.data?.running === true
            }
            onClick={() => setAsking(true)}
          >
            {wanted.length === 0 ? 'Write to these radios' : `Write to ${radiosIn(wanted.length)}`}
          </Button>
        )}
      </div>
      {start.error && <Trouble>{start.error.message}</Trouble>}
      {asking && (
        <Question
          radios={wanted}
          previews={previews}
          onWrite={() => {
            setAsking(false);
            start.mutate();
          }}
          onClose={() => setAsking(false)}
        />
      )}
      <Scroll label="Radios to write to">
        {here.length > 1 && (
          <Button
            kind="quiet"
            size="small"
            disabled={asking || wanted.length === here.length}
            onClick={() => setTaken(new Set(here.map((radio) => radio.id)))}
          >
            Select all {here.length} radios
          </Button>
        )}
        <ul>
          {here.map((radio) => (
            <li
              key={radio.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1.5 text-[13px] last:border-0"
            >
              <TickField
                checked={taken.has(radio.id)}
                disabled={asking}
                onChange={(take) =>
                  setTaken((before) => {
                    const next = new Set(before);
                    if (take) next.add(radio.id);
                    else next.delete(radio.id);
                    return next;
                  })
                }
              >
                {radio.model} <span className="mono text-soft">{radio.called}</span>
              </TickField>
              <UnitValueFields
                radio={radio}
                values={own[radio.id] ?? radio.own}
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

const radiosIn = (n: number) => (n === 1 ? '1 radio' : `${n} radios`);

/** What the write changes in each radio, and the question. The button works when every preview has loaded. */
function Question({
  radios,
  previews,
  onWrite,
  onClose,
}: {
  radios: readonly Radio[];
  previews: readonly { data?: WritePreview; error: Error | null }[];
  onWrite: () => void;
  onClose: () => void;
}) {
  const known = previews.flatMap(({ data }) => data ?? []);
  const [first] = known;
  return (
    <div
      role="group"
      aria-label="Before writing to several"
      className="flex shrink-0 flex-col gap-2 rounded-md border border-ink px-3 py-2"
    >
      <div className="flex items-center gap-3">
        <p className="flex-1">
          {first && known.length === radios.length ? (
            <>
              Write <b className="font-semibold">{first.planName}</b>, revision {first.planRevision}, to{' '}
              {radiosIn(radios.length)}? What each holds now is sealed first.
            </>
          ) : (
            'Working out what it changes in each…'
          )}
        </p>
        <Button kind="strong" disabled={known.length < radios.length} onClick={onWrite}>
          Write to all radios
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
      <Scroll label="What it changes in each" className="max-h-56 text-[13px]">
        <ul>
          {radios.map((radio, at) => (
            <li key={radio.id} className="border-b border-line py-1 last:border-0">
              <span className="flex gap-3">
                <span className="w-36 shrink-0">{radio.model}</span>
                <span className="mono w-24 shrink-0">{radio.called}</span>
                <span className="min-w-0 flex-1">
                  {previews[at]?.data && (
                    <>
                      {warningsOf(previews[at].data, radio).map((words) => (
                        <b key={words} className="block font-medium text-caution">
                          {words}
                        </b>
                      ))}
                      {summaryOf(previews[at].data, radio.state === 'whole')}
                      {previews[at].data.heldBack.length > 0 && (
                        <span className="block text-stop">
                          {previews[at].data.heldBack.length === 1
                            ? '1 channel is not written because of a stop in Check.'
                            : `${previews[at].data.heldBack.length} channels are not written because of stops in Check.`}
                        </span>
                      )}
                    </>
                  )}
                  {previews[at]?.error && <span className="text-stop">{previews[at].error.message}</span>}
                  {hindranceOf(radio) !== null && (
                    <span className="block text-stop">{hindranceOf(radio)}</span>
                  )}
                </span>
              </span>
            </li>
          ))}
        </ul>
      </Scroll>
    </div>
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
