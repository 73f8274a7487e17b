'use client';

import { useRouter } from 'next/navigation';
import { PAPER_NAMES, PAPERS } from '@/core/fit';
import { OUT_FORMATS, OUT_NAMES } from '@/core/interchange';
import { formatFrequency } from '@/core/radio';
import { COLUMNS, SORT_KEYS, slotText } from '@/core/plan';
import { ALIKE, ALIKE_NAMES, CASES, EXTRA_NAMES } from '@/core/table';
import { useCommands, useListed, type Command } from '@/ui';
import { HEADINGS } from './channel-row';
import type { Wish } from './arrange-panel';
import { useDesk } from './desk';
import type { SideTab } from './side-lists';

interface Props {
  focusTable: () => void;
  arrange: (wish: Wish) => void;
  editAbbreviations: () => void;
  replace: () => void;
  columns: () => void;
  besides: () => void;
  openFile: () => void;
  heard: () => void;
  news: () => void;
  typeList: () => void;
  show: (tab: SideTab) => void;
}

const planCommand = (id: string, label: string, run: () => void, keys?: string): Command => ({
  id,
  label,
  group: 'Plan',
  run,
  keys,
});

/** What can be done to a plan on each of its pages, by Ctrl K and by keys. Shows nothing. */
export function EveryPageCommands(): null {
  const desk = useDesk();
  const { hand } = desk;
  const router = useRouter();
  const { plan, store } = hand;
  const base = `/plans/${plan.id}`;
  useCommands('every page of the plan', [
    planCommand('undo', 'Undo', () => store.step('undo'), 'Ctrl Z'),
    { ...planCommand('redo', 'Redo', () => store.step('redo'), 'Ctrl Y'), alsoKeys: 'Ctrl Shift Z' },
    planCommand('to-channels', 'Channels of this plan', () => router.push(base)),
    planCommand('to-organise', 'Organise this plan', () => router.push(`${base}/organise`)),
    planCommand('to-radios', 'Other radios for this plan', () => router.push(`${base}/radios`)),
    planCommand('find-stations', 'Find stations for this plan', () => router.push(`/find?plan=${plan.id}`)),
    planCommand('write', 'Write this plan to a radio', () => router.push(`/bench?plan=${plan.id}`)),
    ...OUT_FORMATS.map((format) =>
      planCommand(
        `export-${format}`,
        `Take the plan out as ${OUT_NAMES[format].name}: ${OUT_NAMES[format].use}`,
        () => window.location.assign(`/api/plans/${plan.id}/export?as=${format}`),
      ),
    ),
    ...PAPERS.map((as) =>
      planCommand(`paper-${as}`, `Print: ${PAPER_NAMES[as].name}, ${PAPER_NAMES[as].use}`, () =>
        window.open(`/plans/${plan.id}/paper?as=${as}`),
      ),
    ),
  ]);
  useListed('channels', () =>
    plan.channels.map((channel) => ({
      id: channel.id,
      label: `${slotText(channel.slot)}  ${channel.name || 'no name'}  ${formatFrequency(channel.rx)}`,
      group: 'Channels',
      words: channel.source?.call,
      run: () => {
        desk.table.select(channel.id);
        // After the palette has given the focus back to where it was.
        if (window.location.pathname === base)
          setTimeout(() => document.querySelector<HTMLElement>('[role=grid]')?.focus(), 0);
        else router.push(base);
      },
    })),
  );
  return null;
}

/** Everything that can be done on the plan screen, for Ctrl K and for the list of shortcuts. Shows nothing; there from the start, so that no key is lost. */
export function PlanCommands({
  focusTable,
  arrange,
  editAbbreviations,
  replace,
  columns,
  besides,
  openFile,
  heard,
  news,
  typeList,
  show,
}: Props): null {
  const { table, actions } = useDesk();
  const chosen = (id: string, label: string, run: () => void, keys?: string): Command => ({
    id,
    label,
    group: 'Chosen channels',
    run,
    keys,
  });
  const shown = (id: string, label: string, keys: string): Command => ({
    id,
    label,
    group: 'In the table',
    keys,
    run: focusTable,
  });
  useCommands('plan', [
    planCommand(
      'find-in-plan',
      'Find in this plan',
      () => document.getElementById('find-in-plan')?.focus(),
      '/',
    ),
    planCommand('abbreviations', 'Change the abbreviations of this plan', editAbbreviations),
    planCommand('replace', 'Find and replace', replace, 'Ctrl H'),
    planCommand('beside', 'Open another plan beside this one', besides),
    planCommand('news', 'What the directories say otherwise now', news),
    planCommand('heard', 'What is never heard, and logs of what was', heard),
    planCommand('type-list', 'Type or paste a list of stations', typeList),
    planCommand('open-file', 'Take stations from a file', openFile),
    planCommand('columns', 'Choose the columns of the table', columns),
    planCommand('show-chosen', 'Show all of what is chosen', () => show('chosen')),
    planCommand('show-left-over', 'Show what is left over', () => show('left over')),
    planCommand('show-history', 'Show the history', () => show('history')),
    planCommand('close-gaps', 'Close the gaps between slots', () => arrange({ how: 'close gaps' })),
    ...SORT_KEYS.map((key) =>
      planCommand(`sort-${key}`, `Sort by ${HEADINGS[key].toLowerCase()}`, () =>
        arrange({ how: 'sort', key }),
      ),
    ),
    ...COLUMNS.filter((column) => column !== 'slot').map((by) =>
      planCommand(`show-by-${by}`, `Show the table by ${HEADINGS[by].toLowerCase()}`, () =>
        table.setOrder({ by, down: false }),
      ),
    ),
    ...table.layout.extras.map((by) =>
      planCommand(`show-by-${by}`, `Show the table by ${EXTRA_NAMES[by].toLowerCase()}`, () =>
        table.setOrder({ by, down: false }),
      ),
    ),
    ...(table.order
      ? [
          planCommand('show-by-slot', 'Show the table by slot again', () => table.setOrder(null)),
          planCommand('into-view', 'Move into the order that is shown', () => void actions.intoView()),
        ]
      : []),
    chosen('listen-only', 'Make listen only', actions.listenOnly, 'L'),
    chosen('scan', 'Scan or skip', actions.toggleScan, 'S'),
    chosen('always-on', 'Mark as always on, or not', actions.toggleAlwaysOn),
    chosen('satellite', 'Mark as working a satellite, or not', actions.toggleSatellite),
    chosen(
      'same-as-receive',
      'Transmit where it receives',
      () => void actions.many({ what: 'same as receive' }),
    ),
    chosen('usual-shift', 'Transmit with the usual shift', () => void actions.many({ what: 'usual shift' })),
    ...CASES.map((to) =>
      chosen(
        `case-${to}`,
        `Names in ${to === 'Each Word' ? 'Capitals Of Each Word' : to}`,
        () => void actions.many({ what: 'case', to }),
      ),
    ),
    ...ALIKE.map((alike) =>
      chosen(`alike-${alike}`, `Choose all with ${ALIKE_NAMES[alike]}`, () => void actions.alike(alike)),
    ),
    chosen('duplicate', 'Duplicate', () => void actions.duplicate()),
    chosen('insert-above', 'Insert a row above', () => actions.insert(true)),
    chosen('insert-below', 'Insert a row below', () => actions.insert(false), 'Ctrl Shift Enter'),
    chosen('count-down', 'Count down', () => void actions.countDown(), 'Ctrl Shift D'),
    chosen('leave-over', 'Leave over, beside the table', () => void actions.leaveOver()),
    chosen('heard-now', 'Heard just now', () => void actions.heardNow(), 'H'),
    chosen('not-heard', 'Not heard after all, the last time', () => void actions.notHeard()),
    chosen('remove', 'Remove', actions.remove),
    chosen('fill-down', 'Fill down', actions.fillDown, 'Ctrl D'),
    chosen('renumber', 'Number anew, in steps', () => arrange({ how: 'renumber' })),
    chosen('move', 'Move to a slot', () => arrange({ how: 'move' }), 'M'),
    chosen('move-up', 'Up one row', actions.moveUp, 'Alt Up'),
    chosen('move-down', 'Down one row', actions.moveDown, 'Alt Down'),
    shown('key-enter', 'Type in the cell', 'Enter'),
    shown('key-all', 'Set what is typed on all chosen', 'Ctrl Enter'),
    shown('key-escape', 'Throw away what is typed', 'Esc'),
    shown('key-extend', 'Extend the block', 'Shift Arrows'),
    shown('key-rows', 'Choose everything', 'Ctrl A'),
    shown('key-delete', 'Empty the cell; in Slot, remove', 'Delete'),
  ]);
  return null;
}
