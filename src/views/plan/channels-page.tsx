'use client';

import clsx from 'clsx';
import { useDeferredValue, useEffect, useRef, useState } from 'react';
import type { FindingField } from '@/core/check';
import type { ChannelId, Edit } from '@/core/plan';
import { useStable, lazily } from '@/ui';
import { isStationFile, pickFile } from '@/views/parts/pick-file';
import type { Wish } from './arrange-panel';
import { ChannelTable } from './channel-table';
import { useDesk } from './desk';
import { FirstSteps } from './no-channels';
import { PlanCommands } from './plan-commands';
import { PlanFooter } from './plan-footer';
import { PlanHeader } from './plan-header';
import { RadioName } from './radio-name';
import type { SideTab } from './side-lists';
import { TableBar } from './table-bar';

/** What stands beside the table is fetched so many ms after it is drawn. */
const BESIDE_MS = 120;

/** Comes after the table; the place that it will take is kept free. */
const BandStrip = lazily(() => import('./band-strip').then((module) => module.BandStrip), {
  after: BESIDE_MS,
});

const ChannelNote = lazily(() => import('./channel-note').then((module) => module.ChannelNote), {
  after: BESIDE_MS,
});

/** So does the face: whoever types never waits for it. */
const PlanFace = lazily(() => import('./plan-face').then((module) => module.PlanFace), {
  after: BESIDE_MS,
});

const WishRow = lazily(() => import('./wish-row').then((module) => module.WishRow));

/** What Check says, the fit and the history, beside the table. */
const SideLists = lazily(() => import('./side-lists').then((module) => module.SideLists), {
  after: BESIDE_MS,
});

/** Panels come when they are first asked for: the page is lighter without them. */
const ArrangePanel = lazily(() => import('./arrange-panel').then((module) => module.ArrangePanel), {
  takesKeys: true,
});

const ReplacePanel = lazily(() => import('./replace-panel').then((module) => module.ReplacePanel), {
  takesKeys: true,
});

const RefusedPanel = lazily(() => import('./refused-panel').then((module) => module.RefusedPanel));

const BesidePanel = lazily(() => import('./beside-panel').then((module) => module.BesidePanel), {
  takesKeys: true,
});

const ColumnsPanel = lazily(() => import('./columns-panel').then((module) => module.ColumnsPanel), {
  takesKeys: true,
});

const FilePanel = lazily(() => import('./file-panel').then((module) => module.FilePanel));

const TypedPanel = lazily(() => import('./typed-panel').then((module) => module.TypedPanel), {
  takesKeys: true,
});
const NewsPanel = lazily(() => import('./news-panel').then((module) => module.NewsPanel));
const HeardPanel = lazily(() => import('./heard-panel').then((module) => module.HeardPanel));

const ThenPanel = lazily(() => import('./then-panel').then((module) => module.ThenPanel));

const AbbreviationsPanel = lazily(
  () => import('./abbreviations-panel').then((module) => module.AbbreviationsPanel),
  { takesKeys: true },
);

/** What stands in the place of the side lists while it is worked on. */
type Panel =
  | { kind: 'arrange'; wish: Wish }
  | { kind: 'abbreviations' }
  | { kind: 'replace' }
  | { kind: 'columns' }
  | { kind: 'beside' }
  | { kind: 'heard' }
  | { kind: 'news' }
  | { kind: 'typed' }
  | { kind: 'file'; file: File }
  | { kind: 'then'; revision: number; called: string };

/** The channels at work: band strip, channel table, radio face, and what Check and the fit say. */
export function ChannelsPage() {
  const desk = useDesk();
  const { hand, table, actions } = desk;
  const [tab, setTab] = useState<SideTab>('check');
  const [panel, setPanel] = useState<Panel | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const focusTable = () => setTimeout(() => grid.current?.focus(), 0);
  const arrange = (wish: Wish) => setPanel({ kind: 'arrange', wish });
  const editAbbreviations = useStable(() => setPanel({ kind: 'abbreviations' }));
  const closePanel = () => {
    setPanel(null);
    focusTable();
  };
  const replace = useStable(() => setPanel({ kind: 'replace' }));
  const openBeside = useStable(() => setPanel({ kind: 'beside' }));
  const openFile = useStable(() => pickFile((file) => setPanel({ kind: 'file', file })));
  const openHeard = useStable(() => setPanel({ kind: 'heard' }));
  const openTyped = useStable(() => setPanel({ kind: 'typed' }));
  const openNews = useStable(() => setPanel({ kind: 'news' }));
  const columns = useStable(() => setPanel({ kind: 'columns' }));
  const look = useStable((revision: number, called: string) => setPanel({ kind: 'then', revision, called }));
  const show = useStable((next: SideTab) => {
    setPanel(null);
    setTab(next);
  });
  useEffect(() => grid.current?.focus({ preventScroll: true }), []);
  // Find and what is chosen lead here by the address.
  useEffect(() => {
    const lead = () => {
      if (window.location.hash !== '#news') return;
      window.history.replaceState(window.history.state, '', window.location.pathname);
      setPanel({ kind: 'news' });
    };
    lead();
    window.addEventListener('hashchange', lead);
    return () => window.removeEventListener('hashchange', lead);
  }, []);

  const mend = useStable((edit: Edit) => {
    const result = hand.store.apply(edit);
    actions.setSaid(result.ok ? '' : result.reason);
  });
  const select = useStable((id: ChannelId, field: FindingField) => {
    table.select(id, field);
    focusTable();
  });
  // Drawn after the table: whoever types never waits for what stands beside it.
  const beside = useDeferredValue(table.active);
  const shown = useDeferredValue(hand.shown);
  const plan = useDeferredValue(hand.plan);
  const heardNow = useStable(() => void actions.heardNow());
  const turnTo = useStable((id: ChannelId) => table.select(id));
  const fittedOf = (of: typeof beside) => (of && shown.views.of.get(of.id)?.fitted) ?? null;

  return (
    <main
      className="flex h-full min-w-0 flex-col max-lg:overflow-y-auto"
      // A file may be dropped anywhere on the page.
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        event.dataTransfer.dropEffect = 'copy';
      }}
      onDrop={(event) => {
        const [file, ...others] = event.dataTransfer.files;
        // Several files, and those that are no list, are a radio's: who opens images takes them.
        if (!file || others.length > 0 || !isStationFile(file)) return;
        event.preventDefault();
        event.stopPropagation();
        setPanel({ kind: 'file', file });
      }}
    >
      <PlanCommands
        focusTable={focusTable}
        arrange={arrange}
        editAbbreviations={editAbbreviations}
        replace={replace}
        columns={columns}
        besides={openBeside}
        openFile={openFile}
        heard={openHeard}
        news={openNews}
        typeList={openTyped}
        show={show}
      />
      <PlanHeader
        onCheck={() => {
          setPanel(null);
          setTab('check');
        }}
      />
      {/* As high as the strip will be: nothing below it moves when it comes. */}
      <div className={clsx('shrink-0 px-4 pb-2.5', hand.plan.channels.length > 0 && 'min-h-[95px]')}>
        <BandStrip />
      </div>
      <div className="flex min-h-0 flex-1 gap-3 px-4 pb-2.5 max-lg:flex-none max-lg:flex-col">
        <section
          aria-label="Channels of this plan"
          className="relative flex min-w-0 flex-1 flex-col overflow-hidden rounded-md border border-line bg-sheet max-lg:h-[75vh] max-lg:flex-none"
        >
          <TableBar
            onColumns={() => (panel?.kind === 'columns' ? closePanel() : columns())}
            arranging={panel?.kind === 'arrange'}
            onArrange={() =>
              panel?.kind === 'arrange'
                ? closePanel()
                : arrange({ how: table.chosenChannels.length > 0 ? 'move' : 'sort' })
            }
          />
          {(table.filtered || table.order) && <WishRow />}
          <ChannelTable
            onMove={() => table.chosenChannels.length > 0 && arrange({ how: 'move' })}
            gridRef={grid}
          />
          {hand.plan.channels.length === 0 && (
            <FirstSteps planId={hand.plan.id} onFile={openFile} onList={openTyped} />
          )}
        </section>
        <aside
          aria-label="This channel and this radio"
          className="flex w-[288px] shrink-0 flex-col gap-2.5 max-lg:w-full! max-[1100px]:w-[244px] min-[1700px]:w-[380px]"
        >
          <div className="min-h-[172px] shrink-0">
            <PlanFace channel={beside} plan={plan} shown={shown} onSelect={turnTo} onHeard={heardNow} />
          </div>
          {/* A panel has the room: what is typed of one channel comes back with the lists. */}
          {!panel && table.chosen.size < 2 && table.active && fittedOf(table.active) && (
            <RadioName
              key={`name ${table.active.id} ${table.active.fitted[hand.model.id] ?? ''}`}
              channel={table.active}
              shown={fittedOf(table.active)!.name}
            />
          )}
          {!panel && table.chosen.size < 2 && table.active && (
            <div className="min-h-[60px] shrink-0">
              <ChannelNote key={`note ${table.active.id} ${table.active.note}`} channel={table.active} />
            </div>
          )}
          {panel?.kind === 'arrange' && (
            <ArrangePanel
              key={`arrange ${panel.wish.how} ${panel.wish.key}`}
              wish={panel.wish}
              onClose={closePanel}
            />
          )}
          {panel?.kind === 'abbreviations' && <AbbreviationsPanel onClose={closePanel} />}
          {panel?.kind === 'then' && (
            <ThenPanel revision={panel.revision} called={panel.called} onClose={closePanel} />
          )}
          {panel?.kind === 'file' && (
            <FilePanel
              key={`${panel.file.name} ${panel.file.lastModified}`}
              file={panel.file}
              onClose={closePanel}
            />
          )}
          {panel?.kind === 'typed' && (
            <TypedPanel onRead={(file) => setPanel({ kind: 'file', file })} onClose={closePanel} />
          )}
          {panel?.kind === 'news' && <NewsPanel onClose={closePanel} />}
          {panel?.kind === 'heard' && <HeardPanel onClose={closePanel} />}
          {panel?.kind === 'beside' && <BesidePanel onClose={closePanel} />}
          {panel?.kind === 'columns' && <ColumnsPanel onClose={closePanel} />}
          {panel?.kind === 'replace' && <ReplacePanel onClose={closePanel} />}
          {!panel && actions.refused.length > 0 && <RefusedPanel />}
          {!panel && actions.refused.length === 0 && (
            <SideLists
              shown={shown}
              planId={hand.plan.id}
              revision={hand.revision}
              leftOver={plan.leftOver.length}
              active={beside?.id ?? null}
              tab={tab}
              onTab={setTab}
              onSelect={select}
              onMend={mend}
              onAbbreviations={editAbbreviations}
              onGoBack={hand.store.goBack}
              onLook={look}
            />
          )}
        </aside>
      </div>
      <PlanFooter />
    </main>
  );
}
