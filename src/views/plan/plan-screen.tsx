'use client';

import { useQuery } from '@tanstack/react-query';
import type { PlanId } from '@/core/plan';
import { sentenceOf, Unreachable } from '@/api/ask';
import type { KeptPlan } from '@/api/plans';
import { ChannelsPage } from './channels-page';
import { DeskProvider } from './desk';
import { openPlan } from './plan-calls';
import { EveryPageCommands } from './plan-commands';
import { useActions } from './use-actions';
import { usePlan } from './use-plan';
import { useTable } from './use-table';
import { lazily } from '@/ui';

const OrganisePage = lazily(() => import('./organise').then((module) => module.OrganisePage));
const RadiosPage = lazily(() => import('./radios').then((module) => module.RadiosPage));

const BytesPage = lazily(() => import('./bytes').then((module) => module.BytesPage));

/** The pages beside the channels. */
const PAGES = { organise: OrganisePage, radios: RadiosPage, bytes: BytesPage };

/** What of a plan is worked on. */
export type PlanPage = 'channels' | 'organise' | 'radios' | 'bytes';

/** The main screen. The plan comes by the interface, beside the scripts, rather than in the page: a large one is read three times as fast. */
export function PlanScreen({ id, name, page = 'channels' }: { id: PlanId; name: string; page?: PlanPage }) {
  const { data, error } = useQuery({
    // Of this page alone: the page that is being left goes on holding what it began with until this one is there.
    queryKey: ['plan', id, 'to work on', page],
    queryFn: () => openPlan(id),
    // From then on the store keeps it; who opens the plan again asks again.
    staleTime: Infinity,
    gcTime: 0,
    structuralSharing: false,
    retry: (failures, reason) => reason instanceof Unreachable && failures < 20,
    retryDelay: 1500,
  });
  if (data) return <PlanDesk initial={data} page={page} />;
  return (
    <main className="flex h-full min-w-0 flex-col">
      <header className="flex shrink-0 items-center gap-3 px-4 pb-2 pt-3">
        <h1 className="min-w-0 truncate text-[21px] font-semibold leading-tight tracking-[-0.01em]">
          {name}
        </h1>
        <span role="status" className="text-[13px] text-soft">
          {error ? sentenceOf(error) : 'Being opened…'}
        </span>
      </header>
    </main>
  );
}

/** The plan at work: what is in hand, and one of its pages. */
function PlanDesk({ initial, page }: { initial: KeptPlan; page: PlanPage }) {
  const hand = usePlan(initial);
  const table = useTable(hand);
  const actions = useActions(hand, table);
  const Page = page === 'channels' ? ChannelsPage : PAGES[page];
  return (
    <DeskProvider value={{ hand, table, actions }}>
      <EveryPageCommands />
      <Page />
    </DeskProvider>
  );
}
