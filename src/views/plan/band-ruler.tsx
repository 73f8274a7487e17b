'use client';

import clsx from 'clsx';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import {
  formatFrequency,
  marks,
  markStep,
  markText,
  writtenMarks,
  stretchesIn,
  type OwnerGrade,
  type Hertz,
  type Range,
  type Ruler,
  type Rules,
  type Stretch,
} from '@/core/radio';
import { placesOf, type Channel, type ChannelId, type ScanEdge } from '@/core/plan';
import { useDesk } from './desk';

const HEIGHT = 66;
const BASE = 40;
/** The narrowest view that zooming gives, Hz. */
const NARROWEST = 50_000;
/** Ticks that lie closer than this part of the view cannot be told apart by a pointer. */
const OVERLAP = 0.004;
/** Marks on a ruler at most; those with figures are fewer. */
const FINE_MARKS = 16;

interface Props {
  ruler: Ruler;
  /** About how wide it is drawn, px. */
  px: number;
  channels: readonly Channel[];
  /** By whose rules, and with which grade, is transmitted. */
  rules: Rules;
  grade: OwnerGrade;
  /** Between which the radio searches. */
  edges: readonly ScanEdge[];
  chosen: ReadonlySet<ChannelId>;
  active: ChannelId | null;
  onPick: (ids: ChannelId[]) => void;
}

/** One band to scale. Click a tick, drag over a range, zoom with the wheel or + and −, walk with the arrow keys. */
export function BandRuler({ ruler, px, channels, rules, grade, edges, chosen, active, onPick }: Props) {
  const [zoom, setZoom] = useState<Range | null>(null);
  const [drag, setDrag] = useState<[number, number] | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const whole: Range = ruler;
  const view = zoom ?? whole;
  const span = view.to - view.from;
  const place = (hz: number) => ((hz - view.from) / span) * 100;
  const inView = (hz: number) => hz >= view.from && hz <= view.to;
  const here = useMemo(
    () =>
      channels.filter(
        ({ rx, tx }) =>
          (rx >= ruler.from && rx <= ruler.to) || (tx !== null && tx >= ruler.from && tx <= ruler.to),
      ),
    [channels, ruler],
  );
  const byFrequency = useMemo(() => [...here].sort((a, b) => a.rx - b.rx), [here]);
  const strong = (id: ChannelId) => id === active || chosen.has(id);
  const strongHere = useMemo(
    () => here.filter(({ id }) => id === active || chosen.has(id)),
    [here, active, chosen],
  );
  const chosenHere = byFrequency.findIndex((channel) => channel.id === active);

  const zoomBy = (factor: number, around = (view.from + view.to) / 2) => {
    const width = Math.max(NARROWEST, span * factor);
    if (width >= whole.to - whole.from) return setZoom(null);
    const from = Math.min(
      Math.max(whole.from, around - ((around - view.from) / span) * width),
      whole.to - width,
    );
    setZoom({ from, to: from + width });
  };
  const hzAt = (clientX: number) => {
    const { left, width } = box.current!.getBoundingClientRect();
    return view.from + Math.max(0, Math.min(1, (clientX - left) / width)) * span;
  };

  const wheel = useRef<(event: WheelEvent) => void>(() => {});
  useEffect(() => {
    wheel.current = (event) => {
      event.preventDefault();
      zoomBy(event.deltaY < 0 ? 0.7 : 1 / 0.7, hzAt(event.clientX));
    };
  });
  useEffect(() => {
    const element = box.current!;
    const hear = (event: WheelEvent) => wheel.current(event);
    element.addEventListener('wheel', hear, { passive: false });
    return () => element.removeEventListener('wheel', hear);
  }, []);

  const onKeyDown = (event: React.KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by !== undefined && byFrequency.length > 0) {
      event.preventDefault();
      const next =
        chosenHere < 0
          ? by > 0
            ? 0
            : byFrequency.length - 1
          : Math.max(0, Math.min(byFrequency.length - 1, chosenHere + by));
      onPick([byFrequency[next]!.id]);
    } else if (event.key === '+') zoomBy(0.5);
    else if (event.key === '-') zoomBy(2);
    else if (event.key === '0') setZoom(null);
    else if (event.key === 'Enter') onPick(byFrequency.filter(({ rx }) => inView(rx)).map(({ id }) => id));
  };

  const onPointerUp = (event: React.PointerEvent) => {
    if (!drag) return;
    const end = hzAt(event.clientX);
    const [from, to] = [Math.min(drag[0], end), Math.max(drag[0], end)];
    setDrag(null);
    if ((to - from) / span < 0.01) {
      const reach = span * 0.02;
      const distance = (channel: Channel) =>
        Math.min(Math.abs(channel.rx - end), channel.tx === null ? Infinity : Math.abs(channel.tx - end));
      const nearest = [...here].sort((a, b) => distance(a) - distance(b) || a.rx - b.rx);
      const [first] = nearest;
      if (!first || distance(first) > reach) return;
      // Those that lie over one another are chosen in turn.
      const over = nearest.filter((one) => distance(one) - distance(first) < span * OVERLAP);
      const next = (over.findIndex(({ id }) => id === active) + 1) % over.length;
      onPick([over[next]!.id]);
      return;
    }
    onPick(
      byFrequency
        .filter(({ rx, tx }) => (rx >= from && rx <= to) || (tx !== null && tx >= from && tx <= to))
        .map(({ id }) => id),
    );
  };

  const stretches = stretchesIn(view, rules, grade);
  const edgesHere = edges.filter(({ from, to }) => to > ruler.from && from < ruler.to);
  const step = markStep(view, FINE_MARKS);
  const labelled = writtenMarks(view, px);
  const near = byFrequency.slice(Math.max(0, chosenHere - 1), Math.max(0, chosenHere - 1) + 3);

  return (
    <div>
      <div className="flex items-baseline justify-between gap-2 pb-0.5 text-[12px]">
        <span className="truncate font-semibold">{ruler.name}</span>
        {zoom ? (
          <button type="button" className="text-soft underline" onClick={() => setZoom(null)}>
            whole band
          </button>
        ) : (
          <span className="shrink-0 text-soft">{here.length}</span>
        )}
      </div>
      <div
        ref={box}
        role="listbox"
        aria-label={`${ruler.name}, ${here.length} channels by frequency${edgesHere.map(edgeWords).join('')}${mayWords(stretches)}; arrow keys choose, plus and minus zoom`}
        aria-activedescendant={chosenHere >= 0 ? `tick-${ruler.name}-${active}` : undefined}
        tabIndex={0}
        className="relative touch-none select-none overflow-hidden rounded-sm border border-line-strong bg-sheet"
        style={{ height: HEIGHT }}
        onKeyDown={onKeyDown}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const hz = hzAt(event.clientX);
          setDrag([hz, hz]);
        }}
        onPointerMove={(event) => drag && setDrag([drag[0], hzAt(event.clientX)])}
        onPointerUp={onPointerUp}
      >
        {drag && (
          <div
            aria-hidden
            className="absolute inset-y-0 bg-wash"
            style={{
              left: `${place(Math.min(...drag))}%`,
              width: `${place(Math.max(...drag)) - place(Math.min(...drag))}%`,
            }}
          />
        )}
        <svg
          aria-hidden
          className="absolute inset-0 h-full w-full"
          viewBox={`0 0 100 ${HEIGHT}`}
          preserveAspectRatio="none"
          fill="none"
        >
          <Marks channels={here} from={view.from} to={view.to} />
          <Marks channels={strongHere} from={view.from} to={view.to} strong />
        </svg>
        {edgesHere
          .filter(({ from, to }) => to > view.from && from < view.to)
          .map(({ id, name, from, to }) => (
            <div
              key={id}
              aria-hidden
              title={`${name}: searches from ${formatFrequency(from)} to ${formatFrequency(to)}`}
              className={clsx(
                'absolute top-[3px] h-[6px] border-t-2 border-ink/60',
                inView(from) && 'border-l-2',
                inView(to) && 'border-r-2',
              )}
              style={{
                left: `${Math.max(0, place(from))}%`,
                right: `${100 - Math.min(100, place(to))}%`,
              }}
            />
          ))}
        {stretches.map(({ from, to, may, names }) => (
          <div
            key={from}
            aria-hidden
            title={`${names.join(', ') || 'Nobody’s that is known'}, ${formatFrequency(from)} to ${formatFrequency(to)}: you ${may ? 'may' : 'may not'} transmit`}
            className={clsx('absolute bottom-0 h-[3px]', may ? 'bg-transmit/55' : 'forbidden')}
            style={{ left: `${place(from)}%`, right: `${100 - place(to)}%` }}
          />
        ))}
        <div aria-hidden className="absolute inset-x-0 border-t border-ink" style={{ top: BASE }} />
        {marks(view, step).map((hz) => (
          <div
            key={hz}
            aria-hidden
            className="absolute w-px bg-line-strong"
            style={{ left: `${place(hz)}%`, top: BASE, height: labelled.includes(hz) ? 6 : 3 }}
          />
        ))}
        {labelled.map((hz) => (
          <span
            key={hz}
            aria-hidden
            className="mono absolute -translate-x-1/2 text-[10px] text-soft"
            style={{ left: `${Math.max(9, Math.min(91, place(hz)))}%`, top: BASE + 8 }}
          >
            {markText(hz)}
          </span>
        ))}
        {near.map(({ id, rx }) => (
          <div
            key={id}
            id={`tick-${ruler.name}-${id}`}
            role="option"
            className="sr-only"
            aria-selected={strong(id)}
            aria-setsize={byFrequency.length}
            aria-posinset={byFrequency.findIndex((channel) => channel.id === id) + 1}
          >
            <NameOf id={id} />, receives {formatFrequency(rx)}
          </div>
        ))}
      </div>
    </div>
  );
}

/** Where one may transmit, for who cannot see it. */
const mayWords = (stretches: readonly Stretch[]) => {
  const open = stretches.filter(({ may }) => may);
  if (open.length === 0) return '; you may transmit nowhere here';
  return `; you may transmit ${open.map(({ from, to }) => `from ${formatFrequency(from)} to ${formatFrequency(to)}`).join(' and ')}`;
};

const edgeWords = ({ name, from, to }: ScanEdge) =>
  `; “${name}” searches from ${formatFrequency(from)} to ${formatFrequency(to)}`;

/** The name that a channel has now: the strip itself is not drawn again for it. */
function NameOf({ id }: { id: ChannelId }) {
  const { channels } = useDesk().hand.plan;
  return channels[placesOf(channels).get(id) ?? -1]?.name || 'no name';
}

/** Where lines lie closer than this, in hundredths of the ruler, one is drawn for all. */
const FINEST = 0.1;
const fine = (x: number) => Math.round(x / FINEST) * FINEST;

/**
 * Ticks and arcs of many channels, a path a kind, however many there are: receive rises from the line, transmit hangs below
 * it, an arc joins the two.
 */
const Marks = memo(function Marks({
  channels,
  from,
  to,
  strong = false,
}: {
  channels: readonly Channel[];
  from: Hertz;
  to: Hertz;
  strong?: boolean;
}) {
  const [receive, transmit, arcs] = [new Set<string>(), new Set<string>(), new Set<string>()];
  const placed = (hz: Hertz | null) =>
    hz !== null && hz >= from && hz <= to ? fine(((hz - from) / (to - from)) * 100) : null;
  for (const { rx, tx } of channels) {
    const [a, b] = [placed(rx), placed(tx)];
    if (a !== null) receive.add(`M${a.toFixed(1)} ${BASE}v${strong ? -17 : -13}`);
    if (b !== null) transmit.add(`M${b.toFixed(1)} ${BASE + 1}v${strong ? 12 : 8}`);
    if (a === null || b === null || tx === rx) continue;
    const bend = (b - a) * 0.2;
    arcs.add(
      `M${a.toFixed(1)} ${BASE - 13}C${(a + bend).toFixed(1)} 0 ${(b - bend).toFixed(1)} 0 ${b.toFixed(1)} ${BASE}`,
    );
  }
  const line = { vectorEffect: 'non-scaling-stroke' as const };
  return (
    <>
      <path
        {...line}
        d={[...arcs].join('')}
        stroke={strong ? 'var(--ink)' : 'var(--line-strong)'}
        strokeWidth={strong ? 1.8 : 1}
      />
      <path {...line} d={[...receive].join('')} stroke="var(--receive)" strokeWidth={strong ? 4 : 2} />
      <path {...line} d={[...transmit].join('')} stroke="var(--transmit)" strokeWidth={strong ? 4 : 2} />
    </>
  );
});
