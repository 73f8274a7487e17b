'use client';

import { Copy, Trash2 } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { PlanId } from '@/core/plan';
import type { FindingCount } from '@/core/check';
import { rulers, type Region } from '@/core/radio';
import { call, sentenceOf } from '@/api/call';
import { planApi, PLANS_AT_ONCE, type PlanRow } from '@/api/plans';
import { Button, Moment, SeverityMark, Trouble, useTimeFormat } from '@/ui';
import { NewPlan } from './new-plan';
import { OpenImage } from './open-image';
import { UnreadablePlan } from './unreadable-plan';

/** Where on the bands a plan lives: its receive frequencies, to scale, without words. */
function MiniStrip({ receive, region }: { receive: number[]; region: Region }) {
  const drawn = useMemo(() => rulers(receive, { region }), [receive, region]);
  return (
    <span className="flex h-7 gap-1.5 max-[700px]:hidden" aria-hidden>
      {drawn.map((ruler, at) => (
        <span
          key={at}
          className="relative block h-full min-w-8 border-b border-ink"
          style={{ flex: `${1 + Math.sqrt(ruler.count)} 1 0` }}
        >
          {receive
            .filter((hz) => hz >= ruler.from && hz <= ruler.to)
            .map((hz, index) => (
              <i
                key={index}
                className="absolute bottom-0 h-3.5 w-[2px] bg-receive"
                style={{ left: `${((hz - ruler.from) / (ruler.to - ruler.from)) * 100}%` }}
              />
            ))}
        </span>
      ))}
    </span>
  );
}

/** What Check counts in a plan. */
function Findings({ counts }: { counts: FindingCount[] }) {
  return counts.map(({ severity, n, text }) => (
    <span key={severity} className="inline-flex items-center gap-1 tabular-nums" title={text}>
      <SeverityMark severity={severity} size={10} label={false} />
      <span aria-hidden>{n}</span>
      <span className="sr-only">{text}</span>
    </span>
  ));
}

/** In which radio the plan is, and whether it has been changed since. */
function Written({ plan }: { plan: PlanRow }) {
  const time = useTimeFormat();
  const { written, revision } = plan;
  if (!written) return null;
  return (
    <span className="block truncate" title={time?.format(new Date(written.at))}>
      Written to <span className="mono">{written.called}</span>
      {written.revision !== revision && '; changed since'}
    </span>
  );
}

/** How often plans are looked at again while some are being worked out, ms. */
const AGAIN_MS = 1500;

/** The plans, and the way to a new one. `removed` can be brought back. */
export function PlansScreen({
  plans,
  total,
  removed,
}: {
  plans: PlanRow[];
  /** How many there are in all. */
  total: number;
  removed: { id: PlanId; name: string }[];
}) {
  const router = useRouter();
  const [making, setMaking] = useState(plans.length === 0);
  const [trouble, setTrouble] = useState('');
  const [said, setSaid] = useState('');
  const pending = plans.some((plan) => plan.pending);
  useEffect(() => {
    if (!pending) return;
    const timer = setInterval(() => router.refresh(), AGAIN_MS);
    return () => clearInterval(timer);
  }, [pending, router]);
  const carryOut = async (done: string, work: Promise<unknown>) => {
    try {
      await work;
      setTrouble('');
      setSaid(done);
      router.refresh();
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
  };
  return (
    <main className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-4xl">
        <div className="flex items-baseline justify-between pb-1">
          <h1 className="text-[21px] font-semibold">Plans</h1>
          <span className="flex gap-2">
            <OpenImage />
            {!making && (
              <Button kind="strong" onClick={() => setMaking(true)}>
                New plan
              </Button>
            )}
          </span>
        </div>
        <p className="max-w-xl pb-5 text-soft">
          A plan is what a radio will hold. Build it here, see what each radio makes of it, then write it on
          the Bench.
        </p>
        {making && <NewPlan first={plans.length === 0} onClose={() => setMaking(false)} />}
        {trouble && <Trouble className="mb-4">{trouble}</Trouble>}
        <ul aria-label="Plans" className="divide-y divide-line border-y border-line">
          {plans.map((plan) => (
            <li key={plan.id} className="flex items-center gap-1 hover:bg-sheet">
              {plan.trouble ? (
                <UnreadablePlan
                  plan={plan}
                  onOpen={() =>
                    carryOut(
                      `Revision ${plan.readable} of “${plan.name}” is a plan of its own now.`,
                      call(planApi.duplicatePlan, {
                        params: { id: plan.id },
                        query: { revision: plan.readable! },
                      }),
                    )
                  }
                />
              ) : (
                <Link
                  prefetch={false}
                  href={`/plans/${plan.id}`}
                  className="grid min-w-0 flex-1 grid-cols-[minmax(0,1.2fr)_minmax(0,1.6fr)_auto] items-center gap-8 px-2 py-4 max-[700px]:grid-cols-[minmax(0,1fr)_auto]"
                >
                  <span className="min-w-0 text-[13px] text-soft">
                    <b className="block truncate text-[16px] font-semibold text-ink">{plan.name}</b>
                    <span className="flex items-center gap-3">
                      {plan.model}
                      {plan.pending ? <span>checking…</span> : <Findings counts={plan.findings} />}
                    </span>
                    <Written plan={plan} />
                  </span>
                  <MiniStrip receive={plan.receive} region={plan.region} />
                  <span className="text-right text-[13px]">
                    {plan.slots > 0 && (
                      <>
                        {plan.channels} of {plan.slots} slots
                      </>
                    )}
                    <span className="block text-soft">
                      <Moment at={plan.updatedAt} />
                    </span>
                  </span>
                </Link>
              )}
              {plan.trouble === null && (
                <Button
                  kind="quiet"
                  size="icon"
                  aria-label={`Duplicate ${plan.name}`}
                  title="Duplicate"
                  onClick={() =>
                    carryOut(
                      `There is a copy of “${plan.name}” now.`,
                      call(planApi.duplicatePlan, { params: { id: plan.id } }),
                    )
                  }
                >
                  <Copy size={15} aria-hidden />
                </Button>
              )}
              <Button
                kind="quiet"
                size="icon"
                aria-label={`Remove ${plan.name}`}
                title="Remove; it can be brought back"
                onClick={() =>
                  carryOut(
                    `“${plan.name}” was removed; it stands below and can be brought back.`,
                    call(planApi.removePlan, { params: { id: plan.id } }),
                  )
                }
              >
                <Trash2 size={15} aria-hidden />
              </Button>
            </li>
          ))}
        </ul>
        {plans.length < total && (
          <p className="flex items-center gap-3 pt-3 text-[13px] text-soft">
            {plans.length} of {total} plans.
            <Link
              className="underline hover:text-ink"
              scroll={false}
              href={`/?show=${plans.length + PLANS_AT_ONCE}`}
            >
              Show more plans
            </Link>
          </p>
        )}
        <p role="status" className="min-h-9 py-2 text-[13px] text-soft">
          {said}
        </p>
        {removed.length > 0 && (
          <section aria-label="Removed plans">
            <h2 className="pb-1 text-[13px] font-semibold">Removed</h2>
            <ul className="divide-y divide-line border-y border-line">
              {removed.map(({ id, name }) => (
                <li key={id} className="flex items-center justify-between gap-4 px-2 py-1.5 text-[13px]">
                  <span className="truncate text-soft">{name}</span>
                  <Button
                    size="small"
                    aria-label={`Bring back ${name}`}
                    onClick={() =>
                      carryOut(`“${name}” is back.`, call(planApi.recoverPlan, { params: { id } }))
                    }
                  >
                    Bring back
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </main>
  );
}
