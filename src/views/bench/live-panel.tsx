'use client';

import clsx from 'clsx';
import Link from 'next/link';
import type { Live } from '@/core/bench';
import { Button, Moment, Scroll } from '@/ui';
import type { BenchInHand } from './use-bench';

/** A radio and a plan that follow each other: how they stand, what is to be decided, what was done last. */
export function LivePanel({ live, hand }: { live: Live; hand: BenchInHand }) {
  const { state, planName, called, apart, said } = live;
  const bad = state === 'ended' || state === 'away';
  return (
    <section
      aria-label="Follows a plan"
      className={clsx(
        'flex min-h-0 shrink-0 flex-col rounded-md border bg-sheet',
        bad ? 'border-stop' : apart.length > 0 ? 'border-caution-mark' : 'border-receive',
      )}
    >
      <div className={clsx('flex items-center gap-3 px-3 py-2', bad && 'rounded-t-md bg-stop-wash')}>
        <p role="status" className="min-w-0 flex-1">
          {state === 'beginning' && (
            <>
              “{planName}” is put into {called}…
            </>
          )}
          {state === 'live' && (
            <>
              <b className="font-semibold">
                {called} and “{planName}” follow each other.
              </b>{' '}
              Revision {live.revision} is in the radio
              {live.tookMs !== null && `, ${live.tookMs} ms after it was typed`}.
            </>
          )}
          {state === 'away' && (
            <>
              <b className="font-semibold">The line of {called} is gone.</b> {live.reason} Plug it in again,
              in whichever socket: what was done on either side is caught up. It has revision {live.revision}{' '}
              of “{planName}”.
            </>
          )}
          {state === 'ended' && (
            <>
              <b className="font-semibold">
                {called} does not follow “{planName}” any more.
              </b>{' '}
              {live.reason}
            </>
          )}
        </p>
        {!bad && (
          <Link prefetch={false} href={`/plans/${live.planId}`} className="shrink-0 text-[13px] underline">
            Open the plan
          </Link>
        )}
        <Button disabled={hand.unfollow.isPending} onClick={() => hand.unfollow.mutate(live.radioId)}>
          {state === 'ended' ? 'All right' : 'End this'}
        </Button>
      </div>
      {apart.length > 0 && (
        <Scroll label="To be decided" className="max-h-40 border-t border-line">
          <ul className="text-[13px]">
            {apart.map(({ list, slot, place, name, radio, plan }) => (
              <li
                key={`${list} ${slot}`}
                className="flex items-center gap-3 border-b border-line px-3 py-1 last:border-0"
              >
                <span className="mono shrink-0 text-soft">{place}</span>
                <span className="w-32 shrink-0 truncate font-medium">{name || 'no name'}</span>
                <span className="min-w-0 flex-1">
                  The radio: {radio} <span className="text-caution">· the plan: {plan}</span>
                </span>
                {(['radio', 'plan'] as const).map((take) => (
                  <Button
                    key={take}
                    size="small"
                    disabled={hand.decide.isPending}
                    aria-label={`${place}, ${name}: take the ${take}’s, ${take === 'radio' ? radio : plan}`}
                    onClick={() => hand.decide.mutate({ id: live.radioId, list, slot, take })}
                  >
                    {take === 'radio' ? 'The radio’s' : 'The plan’s'}
                  </Button>
                ))}
              </li>
            ))}
          </ul>
        </Scroll>
      )}
      {said.length > 0 && (
        <Scroll label="What was done" className="max-h-44 border-t border-line">
          <ul className="text-[13px]">
            {said.map(({ at, text }, n) => (
              <li key={`${at} ${n}`} className="flex gap-3 border-b border-line px-3 py-1 last:border-0">
                <span className="min-w-0 flex-1">{text}</span>
                <span className="shrink-0 text-soft">
                  <Moment at={at} />
                </span>
              </li>
            ))}
          </ul>
        </Scroll>
      )}
    </section>
  );
}
