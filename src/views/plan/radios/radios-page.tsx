'use client';

import clsx from 'clsx';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useMemo, useState } from 'react';
import { MODELS, type Model } from '@/core/models';
import { byLoss, gainAndLoss, sideBySide } from '@/core/organise';
import { Choice } from '@/ui';
import { useDesk } from '../desk';
import { PlanHeader } from '../plan-header';
import { BringInPane } from './bring-in-pane';
import { FamilyPane } from './family-pane';
import { ImagePane } from './image-pane';
import { Matrix } from './matrix';
import { MovePane } from './move-pane';
import { SettingsPane } from './settings-pane';
import { UnitPane } from './unit-pane';
import { useAgainst, usePicks } from './use-against';

const MOST = 6;

/** One plan held against several radios: what each keeps; on to a plan for another of them; plans made of one another. */
export function RadiosPage() {
  const { hand } = useDesk();
  const { plan, model } = hand;
  const router = useRouter();
  const [picked, setPicked] = useState<readonly string[]>(() =>
    [model.id, ...MODELS.filter(({ id }) => id !== model.id).map(({ id }) => id)].slice(0, MOST),
  );
  const [order, setOrder] = useState<'plan' | 'loss'>('loss');
  const [going, setGoing] = useState<Model | null>(null);
  const shown = useDeferredValue(plan);
  const { models, units, read } = usePicks();
  const against = useAgainst(picked, read, model);
  const held = useMemo(() => sideBySide(shown, against), [shown, against]);
  const rows = useMemo(() => (order === 'loss' ? byLoss(held.rows) : held.rows), [held, order]);
  const own = held.columns.findIndex((column) => column.model.id === model.id && !column.unit);
  return (
    <main className="flex h-full min-w-0 flex-col max-lg:overflow-y-auto">
      <PlanHeader onCheck={() => router.push(`/plans/${plan.id}`)} />
      <div className="flex shrink-0 flex-wrap items-end gap-x-4 gap-y-2 px-4 pb-2.5">
        <fieldset className="min-w-0">
          <legend className="pb-1 text-[13px] text-soft">Held against</legend>
          <div className="flex flex-wrap gap-1.5">
            {[...models, ...units].map(({ key, maker, name }, at) => {
              const on = picked.includes(key);
              const unit = at >= models.length;
              return (
                <button
                  key={key}
                  type="button"
                  aria-pressed={on}
                  disabled={!on && picked.length >= MOST}
                  title={unit ? `The ${maker} ${name}, with what is in it now` : undefined}
                  className={clsx(
                    'border border-line-strong px-2.5 py-0.5 text-[13px] text-soft hover:text-ink aria-pressed:border-ink aria-pressed:bg-sheet aria-pressed:text-ink disabled:border-line',
                    unit ? 'mono rounded' : 'rounded-full',
                  )}
                  onClick={() => setPicked(on ? picked.filter((one) => one !== key) : [...picked, key])}
                >
                  <span className="sr-only">{maker} </span>
                  {name}
                </button>
              );
            })}
          </div>
        </fieldset>
        <span className="flex-1" />
        <Choice
          className="w-44"
          label="Order"
          value={order}
          options={[
            ['loss', 'What is lost first'],
            ['plan', 'As in the plan'],
          ]}
          onChange={setOrder}
        />
      </div>
      <div className="flex min-h-0 flex-1 gap-3 px-4 pb-2.5 max-lg:flex-none max-lg:flex-col">
        <Matrix
          columns={held.columns}
          rows={rows}
          own={own}
          gains={(column) => (own < 0 || column === own ? null : gainAndLoss(held.rows, own, column))}
          onMove={(to) => setGoing(going?.id === to.id ? null : to)}
          going={going}
          planId={plan.id}
        />
        <aside
          aria-label="Plans for other radios"
          className="flex w-[300px] shrink-0 flex-col gap-3 overflow-y-auto max-lg:w-full!"
        >
          {going && <MovePane key={going.id} model={going} onClose={() => setGoing(null)} />}
          <UnitPane read={read} />
          <FamilyPane />
          <BringInPane />
          <SettingsPane />
          <ImagePane />
        </aside>
      </div>
    </main>
  );
}
