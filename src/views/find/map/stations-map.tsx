'use client';

import { Maximize2, Minus, Plus } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { stationKey, type Candidate } from '@/core/directory';
import {
  formatDistance,
  formatFrequency,
  horizonKm,
  locator,
  type DistanceUnit,
  type Point,
} from '@/core/radio';
import { useStable } from '@/ui';
import { around, fromScreen, levelOf, onScreen, panned, zoomed, type Camera } from './camera';
import { drawCircle, drawIsles, drawRoute, inksOf, radiusOf, type Inks } from './draw';
import { ALL_ISLES, isles } from './isles';
import { Legend } from './legend';
import { marksOf, MARK_SHAPES, shapeOf } from './marks';
import { drawCross, HAND_HEIGHT, paintMarks, type SeenMark } from './paint';
import { dragged, gripAt, NEAR, pointsOf, spanOf, type Drawn, type Grip } from './sight';

interface Props {
  candidates: readonly Candidate[];
  chosen: ReadonlySet<string>;
  lit: string | null;
  unit: DistanceUnit;
  drawn: Drawn;
  /** Whether pressing the map sets the middle of the circle, or adds a place to the route. */
  way: 'around' | 'along';
  onLit: (key: string | null) => void;
  onChoose: (keys: string[], on: boolean) => void;
  /** The circle was put elsewhere, or drawn wider. */
  onCircle: (centre: Point, km: number | null) => void;
  /** The places of the route are others now. */
  onRoute: (places: Point[]) => void;
  children?: ReactNode;
}

/** A press that moves less is one, px. */
const STILL = 4;
/** The Isles with the stations on them. Everything that it does the keyboard does too, or the list beside it. */
export function StationsMap({
  candidates,
  chosen,
  lit,
  unit,
  drawn,
  way,
  onLit,
  onChoose,
  onCircle,
  onRoute,
  children,
}: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [inks, setInks] = useState<Inks | null>(null);
  const camera = useRef<Camera | null>(null);
  const [focused, setFocused] = useState(false);
  const [said, setSaid] = useState('');
  /** What is being dragged, and how what is drawn looks meanwhile. */
  const grip = useRef<{ grip: Grip; x: number; y: number; moved: boolean } | null>(null);
  const draft = useRef<Drawn | null>(null);
  const marks = useMemo(() => marksOf(candidates), [candidates]);
  const byKey = useMemo(() => new Map(candidates.map((one, at) => [stationKey(one), at])), [candidates]);
  const shapes = useMemo(() => candidates.map(shapeOf), [candidates]);
  const shapesSeen = useMemo(() => MARK_SHAPES.filter((shape) => shapes.includes(shape)), [shapes]);

  useEffect(() => {
    const element = box.current!;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    const readInks = () => setInks(inksOf(element));
    readInks();
    const dark = matchMedia('(prefers-color-scheme: dark)');
    dark.addEventListener('change', readInks);
    const theme = new MutationObserver(readInks);
    theme.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    void document.fonts.ready.then(readInks);
    return () => {
      watch.disconnect();
      theme.disconnect();
      dark.removeEventListener('change', readInks);
    };
  }, []);

  /** The marks that are seen, and where, as they were last drawn. */
  const seen = useRef<SeenMark[]>([]);

  const draw = useStable(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || !inks || size.width === 0) return;
    camera.current ??= around(pointsOf(drawn), size);
    const view = camera.current;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    drawIsles(context, isles(), view, size, inks);
    const over = draft.current ?? drawn;
    if (over.kind === 'around') drawCircle(context, over.centre, over.km, view, size, inks);
    if (over.kind === 'along') drawRoute(context, over.places, over.km, over.cuts, view, size, inks);
    const [northWest, southEast] = [
      fromScreen(view, size, -20, -20),
      fromScreen(view, size, size.width + 20, size.height + 20),
    ];
    seen.current = marks
      .in([northWest.lon, southEast.lat, southEast.lon, northWest.lat], levelOf(view))
      .map((mark) => {
        const [x, y] = onScreen(view, size, mark);
        return { mark, x, y };
      });
    paintMarks(context, { candidates, shapes, byKey, chosen, lit, seen: seen.current }, view, size, inks);
    if (focused) drawCross(context, size, inks);
  });

  const waiting = useRef(0);
  /** Draws with the next frame, however often it is asked for until then. */
  const redraw = useStable(() => {
    if (waiting.current) return;
    waiting.current = requestAnimationFrame(() => {
      waiting.current = 0;
      draw();
    });
  });
  useEffect(redraw, [redraw, marks, chosen, lit, drawn, size, inks, focused, candidates]);
  useEffect(() => () => cancelAnimationFrame(waiting.current), []);

  // Another circle or route is brought into sight.
  const about = JSON.stringify(pointsOf(drawn).map(({ lat, lon }) => [lat.toFixed(3), lon.toFixed(3)]));
  useEffect(() => {
    if (size.width === 0 || grip.current) return;
    const points = pointsOf(drawn);
    const view = camera.current;
    const inSight =
      view !== null &&
      drawn.kind !== 'none' &&
      points.every((point) => {
        const [x, y] = onScreen(view, size, point);
        return x > 16 && y > 16 && x < size.width - 16 && y < size.height - 16;
      });
    const wide = view && inSight ? spanOf(points, view, size) : 0;
    if (!inSight || wide < 0.3) camera.current = around(points, size);
    redraw();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- where it is, not which object says so
  }, [about, size, redraw]);

  const placeOf = (event: { clientX: number; clientY: number }): [number, number] => {
    const { left, top } = box.current!.getBoundingClientRect();
    return [event.clientX - left, event.clientY - top];
  };
  const pointAt = (x: number, y: number) => fromScreen(camera.current!, size, x, y);
  const markAt = (x: number, y: number) =>
    [...seen.current]
      .reverse()
      .find(
        ({ mark, x: atX, y: atY }) =>
          Math.hypot(atX - x, atY - y) <= (mark.kind === 'many' ? radiusOf(mark.n) : NEAR),
      )?.mark;

  const gripOf = (x: number, y: number, shift: boolean) => gripAt(drawn, camera.current!, size, x, y, shift);

  const onPointerDown = (event: React.PointerEvent) => {
    if (event.button !== 0 || !camera.current) return;
    const [x, y] = placeOf(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    grip.current = { grip: gripOf(x, y, event.shiftKey), x, y, moved: false };
  };
  const onPointerMove = (event: React.PointerEvent) => {
    if (!camera.current) return;
    const [x, y] = placeOf(event);
    const held = grip.current;
    if (!held) {
      const mark = markAt(x, y);
      onLit(mark?.kind === 'one' ? stationKey(candidates[mark.index]!) : null);
      canvas.current!.style.cursor =
        mark || gripOf(x, y, false).kind !== 'map' ? 'pointer' : event.shiftKey ? 'crosshair' : 'grab';
      return;
    }
    if (!held.moved && Math.hypot(x - held.x, y - held.y) < STILL) return;
    held.moved = true;
    if (held.grip.kind === 'map') {
      camera.current = panned(camera.current, x - held.x, y - held.y);
      held.x = x;
      held.y = y;
    } else draft.current = dragged(drawn, held.grip, pointAt(x, y));
    redraw();
  };
  const onPointerUp = (event: React.PointerEvent) => {
    const held = grip.current;
    const made = draft.current;
    grip.current = null;
    draft.current = null;
    if (!held || !camera.current) return;
    const [x, y] = placeOf(event);
    if (held.moved) {
      if (made?.kind === 'around') onCircle(made.centre, made.km);
      if (made?.kind === 'along') onRoute([...made.places]);
      return redraw();
    }
    const mark = markAt(x, y);
    if (mark?.kind === 'many') {
      const by = 2 ** Math.max(0.8, marks.apartAt(mark.id) - levelOf(camera.current) + 0.1);
      camera.current = zoomed(camera.current, size, Math.min(8, by), x, y);
      return redraw();
    }
    if (mark?.kind === 'one') {
      const one = candidates[mark.index]!;
      const key = stationKey(one);
      if (one.unfit === null) onChoose([key], !chosen.has(key));
      return;
    }
    if (held.grip.kind !== 'map') return;
    press(pointAt(x, y));
  };
  /** A place of the map was pressed. */
  const press = (point: Point) => {
    if (way === 'around') return onCircle(point, null);
    const places = drawn.kind === 'along' ? drawn.places : [];
    onRoute([...places, point]);
  };

  // React listens for wheels without being allowed to keep them from the page.
  const onWheel = useStable((event: WheelEvent) => {
    if (!camera.current) return;
    event.preventDefault();
    camera.current = zoomed(camera.current, size, 2 ** (-event.deltaY / 260), ...placeOf(event));
    redraw();
  });
  useEffect(() => {
    const element = canvas.current!;
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [onWheel]);

  const zoomBy = (by: number) => {
    if (!camera.current) return;
    camera.current = zoomed(camera.current, size, by, size.width / 2, size.height / 2);
    redraw();
  };
  const seeAll = () => {
    camera.current = around(drawn.kind === 'none' ? ALL_ISLES : pointsOf(drawn), size);
    redraw();
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (!camera.current || event.ctrlKey || event.metaKey || event.altKey) return;
    const step = event.shiftKey ? 160 : 40;
    const move = (dx: number, dy: number) => {
      camera.current = panned(camera.current!, dx, dy);
      const { lat, lon } = pointAt(size.width / 2, size.height / 2);
      setSaid(`${locator({ lat, lon })} is under the cross.`);
      redraw();
    };
    const acts: Record<string, () => void> = {
      ArrowLeft: () => move(step, 0),
      ArrowRight: () => move(-step, 0),
      ArrowUp: () => move(0, step),
      ArrowDown: () => move(0, -step),
      '+': () => zoomBy(1.6),
      '-': () => zoomBy(1 / 1.6),
      '0': seeAll,
      Enter: () => press(pointAt(size.width / 2, size.height / 2)),
      Backspace: () => drawn.kind === 'along' && onRoute(drawn.places.slice(0, -1)),
    };
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };

  const litOne = lit === null ? undefined : candidates[byKey.get(lit) ?? -1];
  const ratio = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  const button =
    'grid size-7 place-items-center rounded border border-line-strong bg-sheet text-ink hover:bg-sunk';
  // A map is handled as one thing, by pointer and keys, which is what the role says.
  /* eslint-disable jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/no-noninteractive-tabindex */
  return (
    <div ref={box} className="relative min-h-0 flex-1 overflow-hidden rounded-md border border-line-strong">
      <div
        role="application"
        aria-label={`Map of the Orrin Isles with ${candidates.length} stations. Arrow keys move it, plus and minus zoom, Enter ${way === 'around' ? 'searches around the cross' : 'adds the cross to the route'}.`}
        tabIndex={0}
        className="absolute inset-0 touch-none outline-offset-[-3px]"
        onFocus={(event) => setFocused(event.currentTarget.matches(':focus-visible'))}
        onBlur={() => setFocused(false)}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerLeave={() => grip.current || onLit(null)}
        onDoubleClick={(event) => {
          if (!camera.current || way === 'along') return;
          camera.current = zoomed(camera.current, size, 2, ...placeOf(event));
          redraw();
        }}
        onKeyDown={onKeyDown}
      >
        <canvas
          ref={canvas}
          aria-hidden
          width={Math.round(size.width * ratio)}
          height={Math.round(size.height * ratio)}
          className="block size-full"
        />
      </div>
      <div className="absolute right-2 top-2 flex flex-col gap-1">
        <button type="button" aria-label="Nearer" className={button} onClick={() => zoomBy(1.6)}>
          <Plus size={14} aria-hidden />
        </button>
        <button type="button" aria-label="Farther" className={button} onClick={() => zoomBy(1 / 1.6)}>
          <Minus size={14} aria-hidden />
        </button>
        <button type="button" aria-label="All of it" className={button} onClick={seeAll}>
          <Maximize2 size={13} aria-hidden />
        </button>
      </div>
      {shapesSeen.length > 0 && <Legend shapes={shapesSeen} />}
      {litOne && (
        <p
          aria-hidden
          className="pointer-events-none absolute left-2 top-2 max-w-[75%] truncate rounded border border-line-strong bg-sheet px-2 py-0.5 text-[12.5px]"
        >
          <b className="font-medium">{litOne.entry.site}</b>{' '}
          <span className="mono text-receive">{formatFrequency(litOne.entry.output)}</span>{' '}
          <span className="text-soft">
            {formatDistance(litOne.distance, unit)}, heard to about{' '}
            {formatDistance(horizonKm(litOne.entry.height, HAND_HEIGHT), unit)}
          </span>
        </p>
      )}
      <p aria-live="polite" className="sr-only">
        {said}
      </p>
      {children}
    </div>
  );
}
