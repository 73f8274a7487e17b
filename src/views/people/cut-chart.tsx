import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { coveredBy, type Point } from '@/core/people/rank';

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [560, 470, 44, 30, 14];
const grouped = (n: number) => n.toLocaleString('en');

/** Steps of an axis up to `most`: 1, 2 or 5 times a power of ten. */
function stepsTo(most: number, about: number): number[] {
  const rough = most / about;
  const power = 10 ** Math.floor(Math.log10(Math.max(1, rough)));
  const step = [1, 2, 5, 10].map((n) => n * power).find((n) => n >= rough) ?? power;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, n) => n * step);
}

/** How much of what is heard so many people are, with the cut as a handle on the curve; what the radio has no room for lies in the shade. */
export function CutChart({
  curve,
  people,
  keyUps,
  room,
  cut,
  onCut,
}: {
  curve: readonly Point[];
  people: number;
  keyUps: number;
  /** As many as the radio holds. */
  room: number;
  cut: number;
  onCut: (people: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  // What lies far beyond the room is not worth the width.
  const most = Math.max(10, Math.min(people, Math.max(room * 2, 100)));
  const x = (n: number) => LEFT + (Math.min(n, most) / most) * (WIDTH - LEFT - 10);
  const y = (share: number) => TOP + (1 - share) * (HEIGHT - TOP - BOTTOM);
  const share = (n: number) => (keyUps === 0 ? 0 : coveredBy(curve, n) / keyUps);
  const shown = curve.filter((point) => point.people <= most);
  const points = [...shown, { people: most, keyUps: coveredBy(curve, most) }];
  const line = points
    .map(
      (point, at) =>
        `${at === 0 ? 'M' : 'L'}${x(point.people).toFixed(1)} ${y(point.keyUps / (keyUps || 1)).toFixed(1)}`,
    )
    .join('');
  const limit = Math.min(room, people);
  const to = (n: number) => onCut(Math.max(0, Math.min(limit, Math.round(n))));
  const drag = (event: PointerEvent) => {
    if (event.buttons !== 1 || !svg.current) return;
    const { left, width } = svg.current.getBoundingClientRect();
    const at = ((event.clientX - left) / width) * WIDTH;
    to(((at - LEFT) / (WIDTH - LEFT - 10)) * most);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by: Record<string, number> = {
      ...{ ArrowRight: cut + 1, ArrowLeft: cut - 1, ArrowUp: cut + 1, ArrowDown: cut - 1 },
      ...{ PageUp: cut + 50, PageDown: cut - 50, Home: 0, End: limit },
    };
    const next = by[event.key];
    if (next === undefined) return;
    event.preventDefault();
    to(next);
  };
  const part = share(cut);
  const words = `${grouped(cut)} people are ${(part * 100).toFixed(1)}% of what is heard`;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full touch-none select-none"
      onPointerDown={drag}
      onPointerMove={drag}
    >
      {room < most && (
        <g>
          <rect
            x={x(room)}
            y={TOP}
            width={WIDTH - 10 - x(room)}
            height={HEIGHT - TOP - BOTTOM}
            className="fill-sunk"
          />
          <text x={x(room) + 6} y={HEIGHT - BOTTOM - 8} className="fill-soft text-[11.5px]">
            no room: {grouped(room)} at most
          </text>
        </g>
      )}
      {[0, 0.25, 0.5, 0.75, 1].map((at) => (
        <g key={at}>
          <line x1={LEFT} x2={WIDTH - 10} y1={y(at)} y2={y(at)} className="stroke-line" />
          <text x={LEFT - 6} y={y(at) + 4} textAnchor="end" className="mono fill-soft text-[11px]">
            {at * 100}%
          </text>
        </g>
      ))}
      {stepsTo(most, 6).map((at) => (
        <text
          key={at}
          x={x(at)}
          y={HEIGHT - BOTTOM + 16}
          textAnchor="middle"
          className="mono fill-soft text-[11px]"
        >
          {grouped(at)}
        </text>
      ))}
      <path d={`${line}L${x(most)} ${y(0)}L${LEFT} ${y(0)}Z`} className="fill-wash" />
      <path d={line} className="fill-none stroke-receive" strokeWidth="2.2" />
      <line x1={x(cut)} x2={x(cut)} y1={y(0)} y2={y(part)} className="stroke-ink" strokeWidth="1.5" />
      <line
        x1={LEFT}
        x2={x(cut)}
        y1={y(part)}
        y2={y(part)}
        className="stroke-ink"
        strokeWidth="1"
        strokeDasharray="3 3"
      />
      <circle
        cx={x(cut)}
        cy={y(part)}
        r="8"
        role="slider"
        aria-label="How many people"
        aria-valuemin={0}
        aria-valuemax={limit}
        aria-valuenow={cut}
        aria-valuetext={words}
        tabIndex={0}
        onKeyDown={onKeyDown}
        className="cursor-ew-resize fill-sheet stroke-ink outline-none focus-visible:stroke-receive"
        strokeWidth="3"
      />
    </svg>
  );
}
