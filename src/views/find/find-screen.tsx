'use client';

import clsx from 'clsx';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { modelOfPlan } from '@/core/models';
import { firstOf, stationKey } from '@/core/directory';
import { placeAlong, type DistanceUnit, type Point } from '@/core/radio';
import type { PlanId } from '@/core/plan';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Choice, lazily, Trouble, useCommands } from '@/ui';
import { Beginning } from './beginning';
import { bandOf } from './bands';
import { BlocksPanel } from './blocks-panel';
import { ChooseMenu } from './choose-menu';
import { DirectoriesMenu } from './directories-menu';
import type { Drawn } from './map/sight';
import { PlacePanel } from './place-panel';
import { Results } from './results';
import { SearchBar } from './search-bar';
import { SearchesMenu } from './searches-menu';
import { Tally } from './tally';
import { useSearch } from './use-search';

/** The map comes after the page: the search does not wait for it. */
const StationsMap = lazily(() => import('./map/stations-map').then((module) => module.StationsMap));

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

/** Find: stations of the directories around a place or along a route, held against a plan and its radio, chosen and placed. */
export function FindScreen({ plans, planId, unit: firstUnit }: Props) {
  const router = useRouter();
  const client = useQueryClient();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [lit, setLit] = useState<string | null>(null);
  const [placed, setPlaced] = useState('');
  const [filling, setFilling] = useState(false);
  const kept = useQuery({
    queryKey: ['plan', planId],
    queryFn: () => call(planApi.plan, { params: { id: planId! } }),
    enabled: planId !== null,
  });
  // Of a plan that cannot be read nothing is known; the stations are shown all the same.
  const search = useSearch(planId, kept.data?.revision ?? (kept.isError ? 0 : null), firstUnit);

  const choose = (keys: string[], on: boolean) => {
    setPlaced('');
    setChosen((now) => {
      const next = new Set(now);
      for (const key of keys)
        if (on) next.add(key);
        else next.delete(key);
      return next;
    });
  };
  const { query, answer, shown, cut } = search;
  const chosenCandidates = useMemo(
    () => (answer?.candidates ?? []).filter((one) => chosen.has(stationKey(one))),
    [answer, chosen],
  );
  const chooseFirst = (n: number, each: boolean) =>
    setChosen(new Set(firstOf(shown, n, each, bandOf).map(stationKey)));
  /** Says what was done, and holds what is known against the plan as it is now. */
  const done = (label: string) => {
    setPlaced(`Done: ${label}.`);
    setChosen(new Set());
    setFilling(false);
    void client.invalidateQueries({ queryKey: ['plan', planId] });
  };
  useCommands('find', [
    {
      id: 'choose-shown',
      label: 'Choose every station shown',
      group: 'Find',
      run: () => choose(shown.filter(({ unfit }) => unfit === null).map(stationKey), true),
    },
    { id: 'choose-none', label: 'Choose none', group: 'Find', run: () => setChosen(new Set()) },
    { id: 'fill-blocks', label: 'Fill the radio in blocks', group: 'Find', run: () => setFilling(true) },
    { id: 'ask-again', label: 'Ask the directories again', group: 'Find', run: search.askAgain },
  ]);

  const drawn = useMemo((): Drawn => {
    if (query?.kind === 'around') return { kind: 'around', centre: query.place, km: query.km };
    if (query?.kind === 'along')
      return { kind: 'along', places: query.places, km: query.km, cuts: nights(query.places, cut) };
    return search.drafted.length > 0
      ? { kind: 'along', places: search.drafted, km: 0, cuts: [] }
      : { kind: 'none' };
  }, [query, cut, search.drafted]);
  const { plan } = kept.data ?? {};
  const model = plan ? modelOfPlan(plan) : undefined;
  const map = (
    <StationsMap
      candidates={shown}
      chosen={chosen}
      lit={lit}
      unit={search.unit}
      drawn={drawn}
      way={search.way}
      onLit={setLit}
      onChoose={choose}
      onCircle={search.aroundPoint}
      onRoute={search.alongPoints}
    />
  );
  const nameOf = (source: string) => search.directories.find(({ id }) => id === source)?.name ?? source;

  return (
    <main className="flex h-full min-w-0 flex-col gap-2.5 px-4 pb-3 pt-3 max-lg:overflow-y-auto">
      <header className="flex shrink-0 flex-wrap items-end gap-x-4 gap-y-2">
        <div className="flex-1">
          <h1 className="text-[21px] font-semibold leading-tight">Find stations</h1>
          <p className="text-[13px] text-soft">
            In the directories{model && `, held against the ${model.maker} ${model.name}`}
          </p>
        </div>
        {plan && (
          <Button
            aria-expanded={filling}
            className="aria-expanded:bg-sunk"
            onClick={() => setFilling(!filling)}
          >
            Fill in blocks
          </Button>
        )}
        <DirectoriesMenu search={search} />
        <SearchesMenu search={search} />
        {plans.length > 0 && (
          <Choice
            label="For the plan"
            value={planId ?? ''}
            options={plans.map(({ id, name }) => [id, name] as const)}
            onChange={(id) => {
              const address = new URLSearchParams(window.location.search);
              address.set('plan', id);
              router.replace(`/find?${address}`);
            }}
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
                <Button key={name} size="small" onClick={() => void search.searchNear(name)}>
                  {name}
                </Button>
              ))}
            </span>
          )}
        </Trouble>
      )}
      {answer?.troubles
        .filter(({ source }) => {
          // One that wants an account and has none says so in its menu.
          const directory = search.directories.find(({ id }) => id === source);
          return !directory?.wantsAccount || directory.account !== null;
        })
        .map(({ source, name, trouble }) => (
          <Trouble key={source} className="shrink-0">
            {name}: {trouble} What is known of it is shown.
          </Trouble>
        ))}
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-none max-lg:flex-col">
        {search.open ? (
          <section aria-label="Map" className="flex min-w-0 flex-1 flex-col max-lg:h-[75vh] max-lg:flex-none">
            {map}
          </section>
        ) : (
          <section
            aria-label="Stations"
            className="flex min-w-0 flex-1 flex-col overflow-hidden rounded-md border border-line bg-sheet max-lg:h-[75vh] max-lg:flex-none"
          >
            {answer && (
              <>
                <Tally search={search} />
                <Results
                  candidates={shown}
                  chosen={chosen}
                  onChoose={choose}
                  lit={lit}
                  onLit={setLit}
                  unit={search.unit}
                  along={query?.kind === 'along'}
                  dayOf={search.dayOf}
                  order={search.order}
                  onOrder={search.setOrder}
                  nameOf={nameOf}
                >
                  {shown.length === 0 && !search.busy && (
                    <p className="p-4 text-soft">
                      Nothing here with these filters. Widen the circle, or show what was dropped.
                    </p>
                  )}
                </Results>
              </>
            )}
          </section>
        )}
        <aside
          aria-label="Around and into the plan"
          className={clsx(
            'flex shrink-0 flex-col gap-2.5 max-lg:w-full',
            search.open && !filling ? 'w-[300px]' : 'w-[340px] max-[1100px]:w-[300px] min-[1600px]:w-[480px]',
          )}
        >
          {!search.open && (
            <div
              className={clsx(
                'flex flex-col max-lg:h-[60vh]',
                plan && (chosen.size > 0 || filling) ? 'h-[200px] shrink-0' : 'min-h-0 flex-1',
              )}
            >
              {map}
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
          {search.open && chosen.size === 0 && !filling && (
            <Beginning search={search} home={plan?.owner.locator ?? ''} hasPlan={planId !== null} />
          )}
          {plan && kept.data && filling && (
            <BlocksPanel
              plan={plan}
              revision={kept.data.revision}
              shown={shown}
              open={search.open}
              searched={query?.kind === 'around' ? query.place : null}
              onFilled={done}
              onClose={() => setFilling(false)}
            />
          )}
          {plan && !filling && (!search.open || chosen.size > 0) && (
            <div className="flex shrink-0 items-center gap-1.5 text-[13px]">
              <b className="font-semibold">{chosen.size} chosen</b>
              <span className="flex-1" />
              <ChooseMenu shown={shown} onFirst={chooseFirst} />
              {chosen.size > 0 && (
                <Button kind="quiet" size="small" onClick={() => setChosen(new Set())}>
                  Choose none
                </Button>
              )}
            </div>
          )}
          {plan && kept.data && chosen.size > 0 && !filling && (
            <PlacePanel
              key={plan.id}
              plan={plan}
              revision={kept.data.revision}
              chosen={chosenCandidates}
              known={answer?.candidates ?? []}
              searched={query?.kind === 'around' ? query.place : null}
              days={search.cut.length > 1 ? search.cut.length : 0}
              dayOf={search.dayOf}
              onPlaced={({ label }) => done(label)}
            />
          )}
          {planId === null && !search.open && (
            <p className="text-[13px] text-soft">Make a plan first: what is found is placed into it.</p>
          )}
        </aside>
      </div>
    </main>
  );
}

/** Where the days of a route end, but for the last. */
const nights = (places: readonly Point[], days: readonly { to: number }[]): Point[] =>
  days.slice(0, -1).map(({ to }) => placeAlong(places, to));
