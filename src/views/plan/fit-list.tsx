'use client';

import clsx from 'clsx';
import { ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { FindingField } from '@/core/check';
import { CHANGE_TODO, OBSTACLE_WORDS } from '@/core/fit/words';
import type { FitChange } from '@/core/fit';
import type { ChannelId } from '@/core/plan';
import { capital } from '@/core/text';
import { LongList, type ListRow } from '@/ui';
import { item, type SideListProps } from './side-list';

const WHAT: Record<FitChange['what'], string> = {
  name: 'names are shorter on this display',
  power: 'powers become the nearest that this radio has',
  tx: 'channels are held as listen only',
  access: 'channels are opened otherwise than the plan says',
  mode: 'channels take the nearest mode that this radio has',
  shift: 'shifts are kept as a split',
  digital: 'channels call or hear less than the plan says',
  'scan list': 'channels are without their scan list',
};

const FIELD_OF: Record<FitChange['what'], FindingField> = {
  ...{ name: 'name', power: 'power', tx: 'tx', access: 'access', mode: 'mode', shift: 'tx' },
  ...{ digital: 'access', 'scan list': 'scan' },
};

interface Entry {
  id: ChannelId;
  field: FindingField;
  text: string;
  because: string;
  /** What the person could do. */
  todo: string;
}
interface Kind {
  key: string;
  title: (n: number) => string;
  entries: Entry[];
}

/** What the fit says, by kind. */
function useKinds({ views }: SideListProps['shown']): Kind[] {
  return useMemo(() => {
    const leftOut: Entry[] = [];
    const changes = new Map<FitChange['what'], Entry[]>();
    for (const { id } of views.plan?.channels ?? []) {
      const view = views.of.get(id);
      if (view && view.leftOut.length > 0)
        leftOut.push({
          id,
          field: 'name',
          text: 'Left out',
          because: capital(view.leftOut.map((one) => OBSTACLE_WORDS[one].because).join(', ')),
          todo: view.leftOut.map((one) => OBSTACLE_WORDS[one].todo).join(' '),
        });
      for (const { what, text, because } of view?.changes ?? []) {
        const entry: Entry = {
          ...{ id, field: FIELD_OF[what], text, because },
          todo: CHANGE_TODO[what],
        };
        const alike = changes.get(what);
        if (alike) alike.push(entry);
        else changes.set(what, [entry]);
      }
    }
    return [
      { key: 'left out', title: (n: number) => `${n} channels are left out`, entries: leftOut },
      ...[...changes].map(([what, entries]) => ({
        key: what,
        title: (n: number) => `${n} ${WHAT[what]}`,
        entries,
      })),
    ].filter(({ entries }) => entries.length > 0);
  }, [views]);
}

/** What this radio changes, and what it cannot hold: a row a kind, opened on demand; the chosen channel's own come first. */
export function FitList({ shown, active, onSelect }: SideListProps) {
  const kinds = useKinds(shown);
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const toggle = (key: string) =>
    setOpen((now) => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  const one = (kind: string, { id, field, text, because, todo }: Entry): ListRow => ({
    key: `${kind} ${id}`,
    className: clsx(item, id === active && 'bg-wash-faint'),
    show: () => (
      <button type="button" className="w-full text-left" onClick={() => onSelect(id, field)}>
        <span className="flex gap-2">
          <span className="mono text-soft">{shown.nameOf(id).slot}</span>
          <span className="min-w-0 flex-1">
            {kind === 'left out' ? `${shown.nameOf(id).name}: left out` : text}
          </span>
        </span>
        <span className="block pl-8 text-[12px] text-soft">
          {because}
          {id === active && `. ${todo}`}
        </span>
      </button>
    ),
  });
  if (kinds.length === 0)
    return <p className="p-3 text-[13px] text-soft">The {shown.model.name} holds this plan as it stands.</p>;
  const own = kinds.flatMap(({ key, entries }) =>
    entries.filter(({ id }) => id === active).map((entry) => one(key, entry)),
  );
  const rows = kinds.flatMap(({ key, title, entries }): ListRow[] => {
    const others = entries.filter(({ id }) => id !== active);
    if (others.length < 2) return others.map((entry) => one(key, entry));
    const isOpen = open.has(key);
    return [
      {
        key,
        className: item,
        show: () => (
          <button
            type="button"
            aria-expanded={isOpen}
            className="flex w-full items-start gap-2 text-left"
            onClick={() => toggle(key)}
          >
            <span className="flex-1">
              <span className="font-medium">{title(others.length)}</span>
              <span className="block truncate text-[12px] text-soft">{others[0]!.because}</span>
              {isOpen && <span className="block text-[12px] text-soft">{others[0]!.todo}</span>}
            </span>
            <ChevronRight
              aria-hidden
              size={14}
              className={clsx('mt-1 shrink-0 text-soft', isOpen && 'rotate-90')}
            />
          </button>
        ),
      },
      ...(isOpen ? others.map((entry) => one(key, entry)) : []),
    ];
  });
  return <LongList label="What this radio changes" rows={[...own, ...rows]} />;
}
