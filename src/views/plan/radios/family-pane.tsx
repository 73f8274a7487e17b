'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { modelById } from '@/core/models';
import type { OwnDifference } from '@/core/organise';
import type { Edit, Plan, PlanId } from '@/core/plan';
import { Button, Trouble } from '@/ui';
import { useDesk } from '../desk';
import { OffersList } from './offers-list';

const box = 'rounded-md border border-line bg-sheet text-[13px]';
/** Most differences that are shown one by one. */
const SHOWN = 30;

const toPlan = (id: string, name: string) => (
  <Link prefetch={false} className="font-medium underline" href={`/plans/${id}`}>
    {name}
  </Link>
);

/** Plans that were made of one another: what changed there, to take or to leave, and what is this plan's own. */
export function FamilyPane() {
  const { hand, actions } = useDesk();
  const { plan, store, revision } = hand;
  const { data, error, refetch } = useQuery({
    queryKey: ['offers', plan.id, revision],
    queryFn: () => call(planApi.offers, { params: { id: plan.id } }),
    placeholderData: (before) => before,
  });
  if (error) return <Trouble>{sentenceOf(error)}</Trouble>;
  if (!data) return null;
  const { source, own, made } = data;
  // Of those that are there still: what is kept of the others has no use.
  const known = Object.fromEntries(
    made.flatMap(({ id }) => (plan.lookedAt[id] ? [[id, plan.lookedAt[id]]] : [])),
  );
  const take = (edit: Edit) => {
    const result = store.apply(edit);
    if (!result.ok) actions.setSaid(result.reason);
  };
  return (
    <>
      {source && (
        <section aria-label="Where it came from" className={box}>
          <p className="border-b border-line px-3 py-2">
            Made of {toPlan(source.id, source.name)}, for the{' '}
            {modelById(source.modelId)?.name ?? source.modelId}.
          </p>
          {data.offers.length === 0 ? (
            <p className="px-3 py-2 text-soft">
              Nothing new there.{' '}
              <button type="button" className="underline" onClick={() => void refetch()}>
                Look again
              </button>
            </p>
          ) : (
            <>
              <h3 className="px-3 pt-2 font-semibold">Changed there since</h3>
              <OffersList
                {...data}
                take={take}
                leave={() =>
                  take({
                    name: 'describe',
                    set: { origin: { plan: source.id, revision: source.revision } },
                  })
                }
              />
            </>
          )}
          <OwnDifferences own={own} />
        </section>
      )}
      <section aria-label="Plans made of this one" className={box}>
        <h3 className="px-3 pt-2 font-semibold">Made of this plan</h3>
        {made.length === 0 ? (
          <p className="px-3 pb-2 text-soft">
            None yet. “Make one” above a radio makes a plan for it; from then on what changes in one is
            offered in the other.
          </p>
        ) : (
          <ul className="pb-1">
            {made.map((one) => (
              <MadePlan
                key={one.id}
                made={one}
                take={take}
                leave={(revision) => take(lookedAt({ ...known, [one.id]: revision }))}
              />
            ))}
          </ul>
        )}
      </section>
    </>
  );
}

const lookedAt = (revisions: Plan['lookedAt']): Edit => ({ name: 'describe', set: { lookedAt: revisions } });

function OwnDifferences({ own }: { own: readonly OwnDifference[] }) {
  if (own.length === 0) return null;
  return (
    <>
      <h3 className="border-t border-line px-3 pt-2 font-semibold">
        {own.length === 1 ? 'One difference' : `${own.length} differences`} of its own
      </h3>
      <ul className="px-3 pb-2">
        {own.slice(0, SHOWN).map(({ id, name, text }) => (
          <li key={id} className="flex justify-between gap-3">
            <span className="truncate">{name || 'no name'}</span>
            <span className="shrink-0 text-soft">{text}</span>
          </li>
        ))}
        {own.length > SHOWN && <li className="text-soft">and {own.length - SHOWN} more</li>}
      </ul>
    </>
  );
}

interface Made {
  id: PlanId;
  name: string;
  modelId: string;
  differences: number;
  seen: number;
  revision: number;
}

/** A plan that was made of this one; what changed in it is looked at when it is asked for. */
function MadePlan({
  made,
  take,
  leave,
}: {
  made: Made;
  take: (edit: Edit) => void;
  leave: (revision: number) => void;
}) {
  const { id, name, modelId, differences, seen, revision } = made;
  const { plan, revision: own } = useDesk().hand;
  const [open, setOpen] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['offers', plan.id, own, id, revision],
    queryFn: () => call(planApi.offersFrom, { params: { id: plan.id, from: id } }),
    enabled: open,
    placeholderData: (before) => before,
  });
  return (
    <li className="border-b border-line py-1 last:border-b-0">
      <div className="flex items-center gap-2 px-3">
        <span className="min-w-0 flex-1">
          {toPlan(id, name)}
          <span className="block text-[12px] text-soft">
            {modelById(modelId)?.name ?? modelId},{' '}
            {differences === 0
              ? 'no differences'
              : differences === 1
                ? 'one difference of its own'
                : `${differences} differences of its own`}
          </span>
        </span>
        {revision > seen && (
          <Button
            size="small"
            aria-expanded={open}
            aria-label={`What changed in ${name}`}
            onClick={() => setOpen(!open)}
          >
            What changed
          </Button>
        )}
      </div>
      {open && error && <Trouble className="mx-3 my-1.5">{sentenceOf(error)}</Trouble>}
      {open && data && revision > seen && (
        <div role="group" aria-label={`Changed in ${name}`}>
          {data.offers.length === 0 && (
            <p className="px-3 pt-1.5 text-soft">Nothing that this plan has not the same.</p>
          )}
          <OffersList {...data} take={take} leave={() => leave(data.revision)} />
          {data.offers.some(({ what }) => what === 'removed') && (
            <p className="px-3 pb-1.5 text-soft">What was removed there is taken one by one.</p>
          )}
        </div>
      )}
    </li>
  );
}
