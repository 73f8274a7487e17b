'use client';

import equal from 'fast-deep-equal';
import { modelById, regionWords, unitWords } from '@/core/models';
import type { Unit } from '@/core/plan';
import { Button, Choice } from '@/ui';
import { useDesk } from '../desk';
import type { usePicks } from './use-against';

/** The one radio that the plan is worked on for: what only that radio can tell is what fit and Check go by. */
export function UnitPane({ read }: Pick<ReturnType<typeof usePicks>, 'read'>) {
  const { hand } = useDesk();
  const { plan, store } = hand;
  const { unit } = plan;
  const model = modelById(plan.modelId)!;
  const units = read.filter(({ modelId }) => modelId === model.id);
  if (units.length === 0 && !unit) return null;
  const here = units.find(({ id }) => id === unit?.radio);
  const link = (to: Unit | null) => store.apply({ name: 'describe', set: { unit: to } });
  const unitOf = ({ id, called, facts }: (typeof units)[number]): Unit => ({ radio: id, called, facts });
  const words = unit?.facts ? unitWords(model, unit.facts) : [];
  const region = unit?.facts ? regionWords(unit.facts, plan.owner) : null;
  return (
    <section
      aria-label="The radio that it is worked on for"
      className="flex flex-col gap-2 rounded-md border border-line bg-sheet px-3 py-2 text-[13px]"
    >
      <Choice
        label="Worked on for"
        value={unit?.radio ?? 'any'}
        options={[
          ['any', `Any ${model.name}`],
          ...(unit && !here ? [[unit.radio, unit.called] as const] : []),
          ...units.map(({ id, called, label }) => [id, label ? `${called}, ${label}` : called] as const),
        ]}
        onChange={(id) => {
          const chosen = units.find((one) => one.id === id);
          link(chosen ? unitOf(chosen) : null);
        }}
      />
      {unit && (
        <p className="text-soft">
          {words.length > 0
            ? `It ${words.join(', ')}. Fit and Check go by that.`
            : unit.facts
              ? `It is made as every ${model.name}.`
              : 'Its memory does not tell how it was made.'}
        </p>
      )}
      {region && <p className="text-caution">{region}</p>}
      {here && !equal(here.facts, unit!.facts) && (
        <>
          <p>It was read again, and says something else of itself now.</p>
          <Button onClick={() => link(unitOf(here))}>Go by what it says now</Button>
        </>
      )}
    </section>
  );
}
