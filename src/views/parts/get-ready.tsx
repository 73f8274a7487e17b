'use client';

import { Check } from 'lucide-react';
import type { Model } from '@/core/models';
import { StepDrawing } from './step-drawing';

type Step = Model['getReady'][number];

/** What the bench sees of a radio that is being got ready: something on a port, and whether it answers. */
export interface SeenOfIt {
  port: boolean;
  answers: boolean;
}
const NOTHING: SeenOfIt = { port: false, answers: false };

/** True where the bench sees by itself that a step is done: a port is there once the cable is in, an answer comes once the rest is done too. */
const isDone = ({ part }: Step, { port, answers }: SeenOfIt) => answers || (port && part === 'cable');

const WHEN = { read: 'To be read', write: 'To be written', after: 'Once it is written' } as const;

/** What it takes to get a radio of this model ready for its cable or card: what to do, drawn, and what it shows then; what is done at a moment of its own apart. */
export function GetReady({ model, seen = NOTHING }: { model: Model; seen?: SeenOfIt }) {
  const steps = model.getReady.filter(({ when }) => when === undefined || when === 'before');
  return (
    <>
      <ol aria-label={`Getting the ${model.name} ready`} className="flex flex-col gap-1 py-1 text-[13px]">
        {steps.map((step, n) => {
          const done = isDone(step, seen);
          return (
            <li key={step.what} className="flex items-center gap-2.5">
              <StepDrawing part={step.part} />
              <span className="min-w-0 flex-1">
                {n + 1}. {step.what}
                {step.shows && <span className="text-soft"> It shows: {step.shows}.</span>}
                {done && (
                  <span className="whitespace-nowrap text-soft">
                    {' '}
                    <Check size={14} aria-hidden className="inline text-receive" /> done
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      {(['read', 'write', 'after'] as const).map((moment) => (
        <AtItsMoment key={moment} model={model} moment={moment} />
      ))}
    </>
  );
}

/** What is done to the radio at a moment of its own: before it is read, before it is written, or after. */
export function AtItsMoment({ model, moment }: { model: Model; moment: keyof typeof WHEN }) {
  return model.getReady
    .filter(({ when }) => when === moment)
    .map(({ what, shows }) => (
      <p key={what} className="pt-1 text-[13px]">
        <span className="text-soft">{WHEN[moment]}: </span>
        {what}
        {shows && <span className="text-soft"> It shows: {shows}.</span>}
      </p>
    ));
}
