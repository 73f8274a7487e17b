'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { Model } from '@/core/models';
import { durationText } from '@/core/text';
import { Button, Choice, TickField, Trouble } from '@/ui';
import { JobPanel } from '@/views/parts';
import type { Choosing } from './use-choose';
import { useIntoRadio } from './use-into-radio';

const grouped = (n: number) => n.toLocaleString('en');

/** People into the memory that a radio has for them alone: which radio, how many, how long it takes, and how far it is. */
export function IntoRadio({
  choosing,
  model,
  rollPeople,
}: {
  choosing: Choosing;
  model: Model;
  rollPeople: number;
}) {
  const hand = useIntoRadio(model);
  const { radio, there, job, start } = hand;
  const [rest, setRest] = useState(true);
  const { taken, room, plan } = choosing;
  // Who is heard is in the roll, or may be beside it: then it is told exactly once they are gathered.
  const people = rest ? Math.min(room, Math.max(taken, rollPeople)) : taken;
  return (
    <div className="flex flex-col gap-2">
      <TickField checked={rest} onChange={setRest}>
        and the rest of the roll: {grouped(rollPeople)} in all
      </TickField>
      {there.length > 1 && radio && (
        <Choice
          label="Into"
          value={radio.id as string}
          options={there.map(({ id, called, label }) => [id as string, label || called] as const)}
          onChange={hand.setWanted}
        />
      )}
      {job && <JobPanel job={job} onStop={() => hand.stop(job.id)} onDismiss={() => hand.dismiss(job.id)} />}
      {job?.state !== 'running' &&
        (radio ? (
          <>
            <p className="text-soft">
              It takes {durationText(hand.secondsFor(people))} at the {grouped(hand.lineRate)} bits a second
              of its line, and cannot be hurried. They take the place of those in it; its plan is not touched.
              Cut off, it goes on where it was.
            </p>
            <Button
              kind="strong"
              disabled={people === 0 || start.isPending || hand.busy || choosing.templateTrouble !== null}
              onClick={() => start.mutate({ ...choosing.choice!, planId: plan!.id, heard: taken, rest })}
            >
              {`Write ${grouped(people)} people into ${radio.called}`}
            </Button>
          </>
        ) : (
          <p className="text-soft">
            No {model.name} is connected. Plug one in on the{' '}
            <Link prefetch={false} href="/bench" className="underline">
              Bench
            </Link>
            : people go into a memory of their own, apart from its plan.
          </p>
        ))}
      {start.error && <Trouble>{start.error.message}</Trouble>}
    </div>
  );
}
