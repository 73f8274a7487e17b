'use client';

import { Tabs } from 'radix-ui';
import { memo } from 'react';
import type { Edit, PlanId } from '@/core/plan';
import { Button, Trouble, lazily } from '@/ui';
import { PlanFindings } from './plan-findings';
import type { SideListProps } from './side-list';

/** Lists come after the table: what they say is worked out beside the page in any case. */
const CheckList = lazily(() => import('./check-list').then((module) => module.CheckList));
const ChosenPane = lazily(() => import('./chosen-pane').then((module) => module.ChosenPane));
const LeftOverPane = lazily(() => import('./left-over-pane').then((module) => module.LeftOverPane));
const FitList = lazily(() => import('./fit-list').then((module) => module.FitList));
const HistoryList = lazily(() => import('./history-list').then((module) => module.HistoryList));

interface Props extends SideListProps {
  planId: PlanId;
  revision: number;
  /** How many channels are left over. */
  leftOver: number;
  tab: SideTab;
  onTab: (tab: SideTab) => void;
  onMend: (edit: Edit) => void;
  onAbbreviations: () => void;
  onGoBack: (revision: number) => void;
  onLook: (revision: number, called: string) => void;
}

const pane = 'flex min-h-0 flex-1 flex-col data-[state=inactive]:hidden';

export type SideTab = 'chosen' | 'check' | 'fit' | 'left over' | 'history';

/** What Check says, what the fit changes, what has been done: beside the table. */
export const SideLists = memo(function SideLists({
  shown,
  planId,
  revision,
  leftOver,
  active,
  tab,
  onTab,
  onSelect,
  onMend,
  onAbbreviations,
  onGoBack,
  onLook,
}: Props) {
  const wholePlan = shown.views.besides.filter(({ kind }) => kind === 'plan');
  const trigger =
    'flex-1 whitespace-nowrap border-b-2 border-transparent px-0.5 py-1.5 text-[12.5px] text-soft data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';
  return (
    <Tabs.Root
      value={tab}
      onValueChange={(value) => onTab(value as SideTab)}
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <Tabs.List aria-label="Beside the table" className="flex shrink-0 border-b border-line px-1">
        <Tabs.Trigger value="chosen" className={trigger}>
          Chosen
        </Tabs.Trigger>
        <Tabs.Trigger value="check" className={trigger}>
          Check {shown.views.counts.reduce((sum, { n }) => sum + n, 0)}
        </Tabs.Trigger>
        <Tabs.Trigger value="fit" className={trigger}>
          Fit {shown.views.fitCount}
        </Tabs.Trigger>
        {(leftOver > 0 || tab === 'left over') && (
          <Tabs.Trigger value="left over" className={trigger}>
            Over {leftOver}
            <span className="sr-only"> left over</span>
          </Tabs.Trigger>
        )}
        <Tabs.Trigger value="history" className={trigger}>
          History
        </Tabs.Trigger>
      </Tabs.List>
      {shown.views.trouble && <Trouble className="m-2 shrink-0">{shown.views.trouble}</Trouble>}
      <Tabs.Content value="chosen" className={pane}>
        <ChosenPane />
      </Tabs.Content>
      <Tabs.Content value="left over" className={pane}>
        <LeftOverPane />
      </Tabs.Content>
      <Tabs.Content value="check" className={pane}>
        {wholePlan.length > 0 && <PlanFindings findings={wholePlan} onMend={onMend} />}
        <CheckList shown={shown} active={active} onSelect={onSelect} onMend={onMend} />
      </Tabs.Content>
      <Tabs.Content value="fit" className={pane}>
        <FitList shown={shown} active={active} onSelect={onSelect} />
        <p className="shrink-0 border-t border-line p-2">
          <Button kind="quiet" size="small" onClick={onAbbreviations}>
            Change the abbreviations
          </Button>
        </p>
      </Tabs.Content>
      <Tabs.Content value="history" className={pane}>
        <HistoryList id={planId} revision={revision} onGoBack={onGoBack} onLook={onLook} />
      </Tabs.Content>
    </Tabs.Root>
  );
});
