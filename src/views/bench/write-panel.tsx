'use client';

import clsx from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { modelById } from '@/core/models';
import { call } from '@/api/call';
import { radioApi } from '@/api/radios';
import { Button, Choice, Scroll, Trouble } from '@/ui';
import { AtItsMoment } from '@/views/parts';
import { Changes } from './changes';
import type { BenchInHand } from './use-bench';
import type { Radio, WritePreview } from '@/core/bench';
import { slotText, type PlanId } from '@/core/plan';
import { SaveCard } from './card-zip';
import { hasCard } from './has-card';
import { BeforeWrite } from './before-write';
import type { PlanName } from './plan-name';
import { hindranceOf, summaryOf, warningsOf } from './write-words';

/** What a stop keeps out of the radio; channels with the same reason are told of together. */
function HeldBack({ heldBack }: Pick<WritePreview, 'heldBack'>) {
  const groups = new Map<string, WritePreview['heldBack']>();
  for (const one of heldBack) {
    const reason = one.reasons.join(' ');
    groups.set(reason, [...(groups.get(reason) ?? []), one]);
  }
  return (
    <Scroll
      label="Not written"
      className="max-h-40 shrink-0 rounded-md border border-stop bg-stop-wash px-3 py-2 text-[13px]"
    >
      <b className="font-semibold">Not written:</b>
      <ul>
        {[...groups].map(([reason, channels]) => (
          <li key={reason}>
            {channels.length === 1 ? (
              <>
                <span className="mono">{slotText(channels[0]!.slot)}</span> {channels[0]!.name}.{' '}
              </>
            ) : (
              <>
                {channels.length} channels, slots{' '}
                <span className="mono">
                  {channels
                    .slice(0, 6)
                    .map(({ slot }) => slotText(slot))
                    .join(' ')}
                  {channels.length > 6 && ' …'}
                </span>
                :{' '}
              </>
            )}
            {reason}
          </li>
        ))}
      </ul>
    </Scroll>
  );
}

/** Choosing a plan for a radio, seeing what will change in it, and the one question that Veridon asks. */
export function WritePanel({
  onChoose,
  radio,
  plans,
  planId,
  hand,
}: {
  radio: Radio;
  plans: PlanName[];
  planId: PlanId | null;
  hand: BenchInHand;
  onChoose: (id: PlanId) => void;
}) {
  const chosen = planId;
  const [asking, setAsking] = useState(false);
  const preview = useQuery({
    queryKey: ['preview', radio.id, chosen, radio.copies[0]?.id],
    queryFn: () => call(radioApi.writePreview, { params: { id: radio.id }, query: { plan: chosen! } }),
    enabled: chosen !== null,
    refetchOnWindowFocus: true,
    retry: false,
  });
  if (chosen === null) return <p className="text-[13px] text-soft">There is no plan to write yet.</p>;
  const seen = preview.data;
  const hindrance = hindranceOf(radio);
  const warnings = seen ? warningsOf(seen, radio) : [];
  const agreed = () => ({
    radioId: radio.id,
    planId: chosen,
    planRevision: seen!.planRevision,
    // Where the radio holds something else by now, nothing is written.
    ...(radio.copies[0] && radio.state === 'whole' && { seenCopyId: radio.copies[0].id }),
  });
  const canFollow = modelById(radio.modelId)?.link?.kind === 'live' && radio.state === 'whole';
  const hasOwnKeys = modelById(radio.modelId)?.getReady.some(({ when }) => when === 'write') ?? false;
  const write = () => {
    setAsking(false);
    hand.start.mutate({ kind: 'write', ...agreed() });
  };
  return (
    <section
      aria-label="Write a plan"
      className="flex min-h-36 flex-col gap-2.5 rounded-md border border-line bg-sheet p-3"
    >
      <div className="flex flex-wrap items-end gap-x-3 gap-y-1.5">
        <Choice
          label="Write the plan"
          value={chosen!}
          options={plans.map(
            ({ id, name, unit }) => [id, unit === radio.id ? `${name}, for this radio` : name] as const,
          )}
          onChange={onChoose}
          className="w-60"
        />
        <p className="min-w-40 flex-1 pb-1.5 text-[13px]">
          {seen ? summaryOf(seen, radio.state === 'whole') : ''}
        </p>
        {!asking && (
          <Button
            kind="strong"
            disabled={!seen || radio.port === null || hindrance !== null}
            onClick={() => setAsking(true)}
          >
            Write to {radio.called}
          </Button>
        )}
      </div>
      {warnings.length > 0 && (
        <ul
          aria-label="Warnings before writing"
          className="shrink-0 rounded-md border border-caution-mark px-3 py-2 text-[13px] font-medium"
        >
          {warnings.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {hindrance !== null &&
        (radio.copies.length === 0 && radio.newerThan === null ? (
          <p className="shrink-0 rounded-md border border-line-strong bg-wash px-3 py-2 text-[13px]">
            {hindrance}
          </p>
        ) : (
          <Trouble className="shrink-0">{hindrance}</Trouble>
        ))}
      {asking && seen && (
        <div
          role="group"
          aria-label="Before writing"
          className={clsx(
            'flex items-center justify-end gap-3 rounded-md border border-ink px-3 py-2',
            (canFollow || hasOwnKeys) && 'flex-wrap',
          )}
        >
          <p className={canFollow || hasOwnKeys ? 'basis-full' : 'flex-1'}>
            Write <b className="font-semibold">{seen.planName}</b>, revision {seen.planRevision}, to the{' '}
            <b className="font-semibold">{radio.model}</b>
            {radio.serial && (
              <>
                {' '}
                with serial <b className="mono">{radio.serial}</b>
              </>
            )}
            ? Its content now is sealed first.
            {canFollow &&
              ' Or let them follow each other from then on: what you type is in the radio at once, what is done on its keys comes into the plan.'}
          </p>
          <AtItsMoment model={modelById(radio.modelId)!} moment="write" />
          <Button kind="strong" autoFocus onClick={write}>
            Write it
          </Button>
          {canFollow && (
            <Button
              onClick={() => {
                setAsking(false);
                hand.follow.mutate(agreed());
              }}
            >
              Follow each other
            </Button>
          )}
          <Button onClick={() => setAsking(false)}>Not now</Button>
        </div>
      )}
      {hasCard(radio) && hindrance === null && <SaveCard radio={radio} planId={chosen} />}
      {seen && seen.heldBack.length > 0 && <HeldBack heldBack={seen.heldBack} />}
      {seen && <BeforeWrite cautions={seen.cautions} leftOut={seen.leftOut} />}
      {preview.error && <Trouble>{preview.error.message}</Trouble>}
      {seen && radio.state === 'whole' && <Changes of={seen} model={modelById(radio.modelId)!} />}
    </section>
  );
}
