'use client';

import { useRouter } from 'next/navigation';
import { Tabs } from 'radix-ui';
import { capital } from '@/core/text';
import { SeverityMark } from '@/ui';
import { useDesk } from '../desk';
import { PlanHeader } from '../plan-header';
import { EdgesAndHomes } from './edges-and-homes';
import { MatrixPane } from './matrix-pane';
import { ScanLists } from './scan-lists';
import { SetUps } from './set-ups';
import { SidesAndZones } from './sides-and-zones';
import { SkipSets } from './skip-sets';
import { TalkgroupsPane } from './talkgroups-pane';
import { WiringPane } from './wiring-pane';
import { useOrganise, zoneWord } from './use-organise';

const trigger =
  'border-b-2 border-transparent px-3 py-1.5 text-[13.5px] text-soft hover:text-ink data-[state=active]:border-ink data-[state=active]:font-semibold data-[state=active]:text-ink';
const content = 'flex min-h-0 flex-1 gap-3 pt-2.5 data-[state=inactive]:hidden';

/** Sides, banks, skip sets, scan edges, home channels and quick set-ups: what of them this radio has. */
export function OrganisePage() {
  const { hand } = useDesk();
  const organising = useOrganise();
  const { model, plan, sides, besides, said } = organising;
  const router = useRouter();
  const word = zoneWord(organising);
  const tabs = [
    ...(model.zones || sides.length > 1
      ? [
          {
            key: 'zones',
            label: sides.length > 1 ? `Sides and ${word}s` : `${capital(word)}s`,
            kinds: ['zone'],
            show: <SidesAndZones organising={organising} />,
          },
        ]
      : []),
    ...(model.skipSets
      ? [{ key: 'skip', label: 'Skip sets', kinds: [], show: <SkipSets organising={organising} /> }]
      : []),
    ...(model.scanEdges
      ? [
          {
            key: 'edges',
            label: 'Scan edges and homes',
            kinds: [],
            show: <EdgesAndHomes organising={organising} />,
          },
        ]
      : []),
    ...(model.digital
      ? [
          {
            key: 'talkgroups',
            label: 'Talkgroups',
            kinds: ['talkgroup'],
            show: <TalkgroupsPane organising={organising} />,
          },
        ]
      : []),
    ...(model.scanLists
      ? [
          {
            key: 'scan',
            label: 'Scan lists',
            kinds: ['scanList'],
            show: <ScanLists organising={organising} />,
          },
        ]
      : []),
    ...(model.digital || model.scanLists
      ? [
          { key: 'matrix', label: 'Matrix', kinds: [], show: <MatrixPane organising={organising} /> },
          {
            key: 'wiring',
            label: 'Wiring',
            kinds: ['channel', 'receiveList'],
            show: <WiringPane organising={organising} />,
          },
        ]
      : []),
    ...(model.setUps
      ? [
          {
            key: 'set-ups',
            label: 'Quick set-ups',
            kinds: ['setUp'],
            show: <SetUps organising={organising} />,
          },
        ]
      : []),
  ];
  return (
    <main className="flex h-full min-w-0 flex-col max-lg:overflow-y-auto">
      <PlanHeader onCheck={() => router.push(`/plans/${plan.id}`)} />
      {tabs.length === 0 ? (
        <p className="max-w-[60ch] px-4 pt-6 text-[14px]">
          The {model.name} has one list and nothing to put its channels into: slots alone are its order.
          {plan.zones.length > 0 &&
            ` The ${plan.zones.length} zones of this plan are kept for radios that have some; see Radios for what each makes of it.`}
        </p>
      ) : (
        <Tabs.Root defaultValue={tabs[0]!.key} className="flex min-h-0 flex-1 flex-col px-4 pb-2.5">
          <Tabs.List aria-label="Organise" className="flex shrink-0 border-b border-line-strong">
            {tabs.map(({ key, label, kinds }) => {
              const worst = besides.find(({ kind }) => (kinds as string[]).includes(kind));
              return (
                <Tabs.Trigger key={key} value={key} className={trigger}>
                  {label}{' '}
                  {worst && (
                    <span className="inline-flex items-center gap-1 pl-1 text-[12px] font-normal">
                      <SeverityMark severity={worst.severity} size={10} />
                      {besides.filter(({ kind }) => (kinds as string[]).includes(kind)).length}
                    </span>
                  )}
                </Tabs.Trigger>
              );
            })}
          </Tabs.List>
          {tabs.map(({ key, show }) => (
            <Tabs.Content key={key} value={key} className={content} tabIndex={-1}>
              {show}
            </Tabs.Content>
          ))}
        </Tabs.Root>
      )}
      <footer className="flex h-9 shrink-0 items-center gap-4 border-t border-line-strong px-4 text-[12.5px] text-soft">
        <span role="status" aria-live="polite">
          {hand.trouble ?? (said || 'Every gesture is one edit: Ctrl Z takes it back.')}
        </span>
      </footer>
    </main>
  );
}
