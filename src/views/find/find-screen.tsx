'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { modelById } from '@/core/models';
import { locator, type DistanceUnit } from '@/core/radio';
import type { PlanId } from '@/core/plan';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Choice, Trouble, useCommands } from '@/ui';
import { PlacePanel } from './place-panel';
import { Results } from './results';
import { Rose } from './rose';
import { SearchBar } from './search-bar';
import { Tally } from './tally';
import { useSearch } from './use-search';

interface PlanName {
  id: string;
  name: string;
}

interface Props {
  plans: PlanName[];
  planId: PlanId | null;
  /** What distances are shown in at first. */
  unit: DistanceUnit;
}

/** Find: stations of a directory around a place, held against a plan and its radio, chosen and placed. */
export function FindScreen({ plans, planId, unit: firstUnit }: Props) {
  const router = useRouter();
  const client = useQueryClient();
  const search = useSearch(planId, firstUnit);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [lit, setLit] = useState<string | null>(null);
  const [placed, setPlaced] = useState('');
  const kept = useQuery({
    queryKey: ['plan', planId],
    queryFn: () => call(planApi.plan, { params: { id: planId! } }),
    enabled: planId !== null,
  });

  const choose = (refs: string[], on: boolean) => {
    setPlaced('');
    setChosen((now) => {
      const next = new Set(now);
      for (const ref of refs)
        if (on) next.add(ref);
        else next.delete(ref);
      return next;
    });
  };
  const chosenCandidates = useMemo(
    () => (search.answer?.candidates ?? []).filter(({ entry }) => chosen.has(entry.ref)),
    [search.answer, chosen],
  );
  useCommands('find', [
    {
      id: 'choose-shown',
      label: 'Choose every station shown',
      group: 'Find',
      run: () =>
        choose(
          search.shown.filter(({ unfit }) => unfit === null).map(({ entry }) => entry.ref),
          true,
        ),
    },
    { id: 'choose-none', label: 'Choose none', group: 'Find', run: () => setChosen(new Set()) },
  ]);

  const model = kept.data ? modelById(kept.data.plan.modelId) : undefined;

  return (
    <main className="flex h-full min-w-0 flex-col gap-3 px-4 pb-3 pt-3 max-lg:overflow-y-auto">
      <header className="flex shrink-0 flex-wrap items-end gap-x-4 gap-y-2">
        <div className="flex-1">
          <h1 className="text-[21px] font-semibold leading-tight">Find stations</h1>
          <p className="text-[13px] text-soft">
            In the Relay Register{model && `, held against the ${model.maker} ${model.name}`}
          </p>
        </div>
        {plans.length > 0 && (
          <Choice
            label="For the plan"
            value={planId ?? ''}
            options={plans.map(({ id, name }) => [id, name] as const)}
            onChange={(id) => router.replace(`/find?plan=${id}`)}
            className="w-56"
          />
        )}
        {planId && (
          <Link
            prefetch={false}
            href={`/plans/${planId}`}
            className="inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-3 text-[13px] font-medium hover:bg-sunk"
          >
            To the plan
          </Link>
        )}
      </header>
      <SearchBar search={search} />
      {search.trouble && (
        <Trouble className="shrink-0">
          {search.trouble}
          {search.near.length > 0 && (
            <span className="ml-2 inline-flex flex-wrap gap-1.5">
              {search.near.map((name) => (
                <Button key={name} size="small" onClick={() => search.searchNear(name)}>
                  {name}
                </Button>
              ))}
            </span>
          )}
        </Trouble>
      )}
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-none max-lg:flex-col">
        <section
          aria-label="Stations"
          className="flex min-w-0 flex-1 flex-col overflow-hidden rounded-md border border-line bg-sheet max-lg:h-[75vh] max-lg:flex-none"
        >
          {search.answer ? (
            <>
              <Tally search={search} />
              <Results
                candidates={search.shown}
                chosen={chosen}
                onChoose={choose}
                lit={lit}
                onLit={setLit}
                unit={search.unit}
              >
                {search.shown.length === 0 && (
                  <p className="p-4 text-soft">
                    Nothing here with these filters. Widen the circle, or show what was dropped.
                  </p>
                )}
              </Results>
            </>
          ) : (
            <p className="m-auto max-w-sm p-6 text-center text-soft">
              Name a town and a distance, then search. What this radio cannot use is dropped, and said why.
            </p>
          )}
        </section>
        <aside
          aria-label="Around and into the plan"
          className="flex w-[300px] shrink-0 flex-col gap-3 max-lg:w-full"
        >
          {search.answer && search.query && (
            <div className="shrink-0 rounded-md border border-line bg-sheet p-2">
              <Rose
                candidates={search.shown}
                radius={search.query.radius}
                unit={search.unit}
                chosen={chosen}
                lit={lit}
                onLit={setLit}
                onChoose={choose}
              />
              <p className="text-center text-[12.5px] text-soft">
                Around {search.query.name}, <span className="mono">{locator(search.query)}</span>
              </p>
            </div>
          )}
          {placed && planId && (
            <p
              role="status"
              className="shrink-0 rounded-md border border-line-strong bg-wash px-3 py-2 text-[13px]"
            >
              {placed}{' '}
              <Link prefetch={false} className="underline" href={`/plans/${planId}`}>
                See them in the plan
              </Link>
              , where it can be undone.
            </p>
          )}
          {kept.data && (search.answer || chosen.size > 0) ? (
            <>
              <div className="flex shrink-0 items-center justify-between text-[13px]">
                <b className="font-semibold">{chosen.size} chosen</b>
                {chosen.size > 0 && (
                  <Button kind="quiet" size="small" onClick={() => setChosen(new Set())}>
                    Choose none
                  </Button>
                )}
              </div>
              <PlacePanel
                key={kept.data.plan.id}
                plan={kept.data.plan}
                revision={kept.data.revision}
                chosen={chosenCandidates}
                onPlaced={({ label }, left) => {
                  setPlaced(`Done: ${label}.`);
                  setChosen(new Set(left.map(({ entry }) => entry.ref)));
                  void client.invalidateQueries({ queryKey: ['plan', planId] });
                  search.refresh();
                }}
              />
            </>
          ) : (
            planId === null && (
              <p className="text-[13px] text-soft">Make a plan first: what is found is placed into it.</p>
            )
          )}
        </aside>
      </div>
    </main>
  );
}
