'use client';

import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { canWire, wireEdit, wireKey, wiringOf, type Wired } from '@/core/organise';
import { capital } from '@/core/text';
import { Button, Scroll } from '@/ui';
import { WireFindings } from './wire-findings';
import { WireNodeBox } from './wire-node';
import { zoneWord, type Organising } from './use-organise';

const NODE_HEIGHT = 42;
const STEP = 50;
const GAP = 40;
const TOP = 6;

/** What a wire means: copper where it is called, verdigris where it is heard, ink where it is scanned or held. */
const strokeOf = (from: string, to: string): string =>
  from.startsWith('receiveList') || to.startsWith('receiveList')
    ? 'stroke-receive'
    : to.startsWith('talkgroup')
      ? 'stroke-transmit'
      : 'stroke-soft';

/** Knob and zones, channels, talkgroups, receive lists, scan lists: drawn as they are wired, to be followed, searched and joined. */
export function WiringPane({ organising }: { organising: Organising }) {
  const { plan, model, run, besides, setSaid } = organising;
  const [focus, setFocus] = useState<string | null>(() =>
    plan.zones[0] ? wireKey('zone', plan.zones[0].id) : null,
  );
  const [search, setSearch] = useState('');
  const [drawing, setDrawing] = useState<{ from: string; x: number; y: number } | null>(null);
  const [width, setWidth] = useState(1100);
  const board = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const watcher = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    if (board.current) watcher.observe(board.current);
    return () => watcher.disconnect();
  }, []);
  const { columns, wires } = useMemo(
    () => wiringOf(plan, model, { focus, search }),
    [plan, model, focus, search],
  );
  const column = (width - GAP * (columns.length - 1)) / columns.length;
  const places = new Map(
    columns.flatMap(({ kind, nodes }, at) =>
      nodes.map(
        (node, row) => [wireKey(kind, node.id), { x: at * (column + GAP), y: TOP + row * STEP }] as const,
      ),
    ),
  );
  const height =
    TOP + Math.max(...columns.map(({ nodes, more }) => nodes.length + (more > 0 ? 1 : 0)), 3) * STEP;
  const titles: Record<Wired, string> = {
    zone: `${capital(zoneWord(organising))}s${model.zones?.knob ? ' and knob' : ''}`,
    channel: 'Channels',
    talkgroup: 'Talkgroups called',
    receiveList: 'Receive lists',
    scanList: 'Scan lists',
    member: 'Looked at',
  };
  const said = useMemo(
    () => new Map([...besides].reverse().map((one) => [`${one.kind} ${one.id}`, one])),
    [besides],
  );
  const follow = (key: string) =>
    setFocus(key.startsWith('member ') ? key.replace('member', 'channel') : key);
  const join = (a: string, b: string) => {
    const drawn = wireEdit(plan, model, a, b);
    if (!drawn) return setSaid('Between those two no wire can be drawn, or there is no room for it.');
    run(drawn.edit, drawn.on ? 'Joined.' : 'Parted.');
  };
  const at = (event: PointerEvent) => {
    const { left, top } = board.current!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const letGo = (event: PointerEvent) => {
    if (!drawing) return;
    setDrawing(null);
    const over = document
      .elementFromPoint(event.clientX, event.clientY)
      ?.closest<HTMLElement>('[data-wired]');
    const to = over?.dataset.wired;
    if (to && to !== drawing.from) join(drawing.from, to);
  };
  const line = (fromKey: string, toKey: string) => {
    const [from, to] = [places.get(fromKey)!, places.get(toKey)!];
    const back = to.x < from.x;
    const [x1, x2] = back ? [from.x, to.x + column] : [from.x + column, to.x];
    const [y1, y2] = [from.y + NODE_HEIGHT / 2, to.y + NODE_HEIGHT / 2];
    const bend = Math.max(18, Math.min(60, Math.abs(x2 - x1) / 2)) * (back ? -1 : 1);
    return `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`;
  };
  const focused =
    focus && columns.flatMap(({ nodes }) => nodes).find((node) => wireKey(node.kind, node.id) === focus);
  return (
    <section
      aria-label="Wiring"
      className="flex min-h-0 min-w-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <div className="flex shrink-0 flex-wrap items-end gap-3 border-b border-line-strong px-3 py-2 text-[13px]">
        <label className="flex flex-col gap-1 text-soft">
          Find in the wiring
          <input
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder="name or number"
            className="h-8 w-52 rounded-md border border-line-strong bg-sheet px-2 text-[14px] text-ink placeholder:text-soft"
          />
        </label>
        <p className="pb-1.5" aria-live="polite">
          {focused ? (
            <>
              Followed from <strong>{focused.name}</strong>
            </>
          ) : (
            'Choose anything to follow its wires.'
          )}
        </p>
        {focus && (
          <Button size="small" className="mb-0.5" onClick={() => setFocus(null)}>
            Show all
          </Button>
        )}
        <span className="flex-1" />
        <p className="flex flex-wrap gap-x-3 pb-1.5 text-[12.5px] text-soft">
          <Legend className="bg-transmit">calls</Legend>
          <Legend className="bg-receive">hears</Legend>
          <Legend className="bg-soft">holds, scans</Legend>
          <span>draw from a dot to join or part</span>
        </p>
      </div>
      <div
        className="flex shrink-0 border-b border-line px-3 py-1 text-[12px] font-semibold text-soft"
        style={{ gap: GAP }}
      >
        {columns.map(({ kind }) => (
          <span key={kind} className="min-w-0 flex-1 truncate">
            {titles[kind]}
          </span>
        ))}
      </div>
      <Scroll label="Diagram" className="flex-1 bg-wash-faint px-3">
        <div
          ref={board}
          className="relative"
          style={{ height }}
          onPointerMove={(event) => drawing && setDrawing({ ...drawing, ...at(event) })}
          onPointerUp={letGo}
          onPointerLeave={() => setDrawing(null)}
        >
          <svg
            aria-hidden
            className="pointer-events-none absolute inset-0 size-full overflow-visible"
            fill="none"
          >
            {wires.map(({ from, to }) => (
              <path
                key={`${from} ${to}`}
                d={line(from, to)}
                className={strokeOf(from, to)}
                strokeWidth={focus && (from === focus || to === focus) ? 2.2 : 1.3}
                strokeDasharray={to.startsWith('member') || to.startsWith('scanList') ? '5 3' : undefined}
              />
            ))}
            {drawing && places.has(drawing.from) && (
              <path
                d={`M${places.get(drawing.from)!.x + column} ${places.get(drawing.from)!.y + NODE_HEIGHT / 2}L${drawing.x} ${drawing.y}`}
                className="stroke-ink"
                strokeWidth="2"
              />
            )}
          </svg>
          {columns.map(({ kind, nodes, more }, n) => (
            <ul key={kind} aria-label={titles[kind]}>
              {nodes.map((node, row) => {
                const key = wireKey(kind, node.id);
                return (
                  <WireNodeBox
                    key={key}
                    node={node}
                    wiredKey={key}
                    style={{
                      left: n * (column + GAP),
                      top: TOP + row * STEP,
                      width: column,
                      height: NODE_HEIGHT,
                    }}
                    focused={key === focus}
                    severity={said.get(`${kind} ${node.id}`)?.severity ?? null}
                    join={
                      focus && key !== focus && canWire(focus, key, model)
                        ? wires.some(
                            ({ from, to }) =>
                              (from === focus && to === key) || (from === key && to === focus),
                          )
                          ? 'part'
                          : 'join'
                        : null
                    }
                    onFollow={() => follow(key)}
                    onJoin={() => focus && join(focus, key)}
                    onDraw={(event) => setDrawing({ from: key, ...at(event) })}
                  />
                );
              })}
              {more > 0 && (
                <li
                  className="absolute text-[12.5px] text-soft"
                  style={{ left: n * (column + GAP), top: TOP + nodes.length * STEP + 8, width: column }}
                >
                  and {more} more: search
                </li>
              )}
              {nodes.length === 0 && (
                <li
                  className="absolute text-[12.5px] text-soft"
                  style={{ left: n * (column + GAP), top: 12, width: column }}
                >
                  none
                </li>
              )}
            </ul>
          ))}
        </div>
      </Scroll>
      <WireFindings organising={organising} onFollow={follow} />
    </section>
  );
}

const Legend = ({ className, children }: { className: string; children: string }) => (
  <span className="flex items-center gap-1.5">
    <span aria-hidden className={`h-[3px] w-5 rounded ${className}`} />
    {children}
  </span>
);
