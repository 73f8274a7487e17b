'use client';

import clsx from 'clsx';
import { ChevronDown, ChevronUp, Copy, X } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { copiedTo, knobPositions, outOfReach, positionsOf, putAt, swapped } from '@/core/organise';
import type { ChannelId, Zone, ZoneId } from '@/core/plan';
import { Button, Choice } from '@/ui';
import { KnobDrawing } from './knob-drawing';
import { carryAlong, useDrop } from './use-drop';
import type { Organising } from './use-organise';

/** What each position of the knob does in a zone: drawn as the knob, and as its positions one by one, sixteen places filled at once. */
export function KnobPane({
  organising,
  zone,
  onZone,
}: {
  organising: Organising;
  zone: Zone;
  onZone: (id: ZoneId) => void;
}) {
  const { plan, model, run, chosen } = organising;
  const [position, setPosition] = useState(1);
  const rows = useRef<HTMLUListElement>(null);
  const places = positionsOf(zone, model);
  const names = useMemo(
    () => new Map(plan.channels.map(({ id, name }) => [id, name || 'no name'])),
    [plan.channels],
  );
  const away = outOfReach(zone, plan, model);
  const next = plan.zones[plan.zones.indexOf(zone) + 1];
  const count = knobPositions(model);
  const put = (at: number, ids: readonly (ChannelId | null)[], done: string) =>
    run(putAt(zone, model, at, ids), done);
  const putChosen = (at: number, ids: readonly ChannelId[]) => {
    const room = Math.min(ids.length, count - at + 1);
    put(
      at,
      ids,
      `Position ${at}${room > 1 ? ` to ${at + room - 1}` : ''} of “${zone.name}” is set.${ids.length > room ? ` ${ids.length - room} found no position.` : ''}`,
    );
  };
  const swap = (from: number, to: number) => {
    if (to < 1 || to > count) return;
    if (run(swapped(zone, model, from, to), `Position ${from} and ${to} are swapped.`)) setPosition(to);
  };
  const go = (to: number) => {
    const at = Math.min(count, Math.max(1, to));
    setPosition(at);
    rows.current?.children[at - 1]?.scrollIntoView({ block: 'nearest' });
  };
  const inOrder = plan.channels.filter(({ id }) => chosen.has(id)).map(({ id }) => id);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (by && event.altKey) swap(position, position + by);
    else if (by) go(position + by);
    else if (event.key === 'Home') go(1);
    else if (event.key === 'End') go(count);
    else if (event.key === 'Delete') put(position, [null], `Position ${position} is empty.`);
    else if (event.key === 'Enter' && inOrder.length > 0) putChosen(position, inOrder);
    else return;
    event.preventDefault();
  };
  return (
    <aside
      aria-label="Knob"
      className="flex w-[300px] shrink-0 flex-col rounded-md border border-line bg-sheet max-[1150px]:w-[250px]"
    >
      <div className="flex shrink-0 items-end gap-2 border-b border-line-strong px-3 py-1.5">
        <Choice
          className="min-w-0 flex-1"
          label="The knob in the zone"
          value={zone.id as string}
          options={plan.zones.map(({ id, name }) => [id as string, name] as const)}
          onChange={(id) => onZone(id as ZoneId)}
        />
        <Button
          size="icon"
          disabled={!next}
          title={next ? `The same in “${next.name}”` : undefined}
          aria-label={next ? `The same in “${next.name}”` : 'There is no zone after this'}
          onClick={() =>
            next && run(copiedTo(zone, next, model), `The knob does the same in “${next.name}”.`)
          }
        >
          <Copy size={14} aria-hidden />
        </Button>
      </div>
      <KnobDrawing places={places} names={names} position={position} onPosition={go} />
      <div className="min-h-0 flex-1 overflow-y-auto border-t border-line">
        <ul
          ref={rows}
          role="listbox"
          aria-label="Positions of the knob"
          aria-activedescendant={`knob-${position}`}
          tabIndex={0}
          className="outline-none focus-visible:shadow-[inset_0_0_0_2px_var(--receive)]"
          onKeyDown={onKeyDown}
        >
          {places.map((id, at) => (
            <Position
              key={at}
              at={at + 1}
              name={id ? (names.get(id) ?? null) : null}
              id={id}
              active={at + 1 === position}
              onPick={() => setPosition(at + 1)}
              onDropped={(ids) => putChosen(at + 1, ids)}
            />
          ))}
        </ul>
      </div>
      <div className="flex shrink-0 flex-col gap-1.5 border-t border-line p-2.5 text-[12.5px]">
        <div role="toolbar" aria-label={`Position ${position}`} className="flex gap-1.5">
          <Button size="small" disabled={position === 1} onClick={() => swap(position, position - 1)}>
            <ChevronUp size={13} aria-hidden /> Up
          </Button>
          <Button size="small" disabled={position === count} onClick={() => swap(position, position + 1)}>
            <ChevronDown size={13} aria-hidden /> Down
          </Button>
          <Button
            size="small"
            disabled={!places[position - 1]}
            onClick={() => put(position, [null], `Position ${position} is empty.`)}
          >
            <X size={13} aria-hidden /> Empty
          </Button>
        </div>
        <Button size="small" disabled={inOrder.length === 0} onClick={() => putChosen(position, inOrder)}>
          {inOrder.length > 1 ? `Put the ${inOrder.length} chosen` : 'Put the chosen'} from position{' '}
          {position} on
        </Button>
        {away.length > 0 && (
          <p className="text-caution">
            Out of the knob’s reach:{' '}
            {away
              .slice(0, 4)
              .map((id) => names.get(id))
              .join(', ')}
            {away.length > 4 && ` and ${away.length - 4} more`}.
          </p>
        )}
      </div>
    </aside>
  );
}

function Position({
  at,
  name,
  id,
  active,
  onPick,
  onDropped,
}: {
  at: number;
  name: string | null;
  id: ChannelId | null;
  active: boolean;
  onPick: () => void;
  onDropped: (ids: ChannelId[]) => void;
}) {
  const { over, handlers } = useDrop(onDropped);
  return (
    // The list takes the keys; the rows take the mouse.
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events
    <li
      id={`knob-${at}`}
      role="option"
      aria-selected={active}
      draggable={id !== null}
      onDragStart={(event) => id && carryAlong(event.dataTransfer, [id])}
      onClick={onPick}
      className={clsx(
        'flex h-[25px] cursor-default items-center gap-2 border-b border-line px-2.5 text-[13.5px]',
        over ? 'bg-wash' : active && 'bg-wash-faint shadow-[inset_3px_0_0_var(--ink)]',
      )}
      {...handlers}
    >
      <span className="mono w-5 shrink-0 text-right text-soft">{at}</span>
      <span className={clsx('min-w-0 flex-1 truncate', name ? 'font-medium' : 'text-soft')}>
        {name ?? 'empty: silent'}
      </span>
    </li>
  );
}
