import clsx from 'clsx';
import type { ChannelId } from '@/core/plan';

const [CENTRE_X, CENTRE_Y, RADIUS] = [139, 88, 48];

/** Where a position stands: from the lower left over the top to the lower right, as a hand turns it. */
const angleOf = (position: number, of: number) =>
  (-140 + ((position - 1) * 280) / (of - 1)) * (Math.PI / 180);

/** The knob from above: a tick and a number a position, filled where it does something, its hand on the one at work. */
export function KnobDrawing({
  places,
  names,
  position,
  onPosition,
}: {
  places: readonly (ChannelId | null)[];
  names: ReadonlyMap<string, string>;
  position: number;
  onPosition: (position: number) => void;
}) {
  const at = (n: number, r: number) => {
    const angle = angleOf(n, places.length);
    return [CENTRE_X + r * Math.sin(angle), CENTRE_Y - r * Math.cos(angle)] as const;
  };
  const name = places[position - 1] ? (names.get(places[position - 1]!) ?? '') : null;
  const [handX, handY] = at(position, RADIUS - 9);
  return (
    <svg
      viewBox="0 0 278 186"
      className="w-full shrink-0 bg-wash-faint"
      role="img"
      aria-label={`Position ${position}: ${name ?? 'empty, silent'}`}
    >
      <circle
        cx={CENTRE_X}
        cy={CENTRE_Y}
        r={RADIUS}
        className="fill-sheet stroke-line-strong"
        strokeWidth="1.5"
      />
      <circle
        cx={CENTRE_X}
        cy={CENTRE_Y}
        r={RADIUS - 18}
        className="fill-none stroke-line"
        strokeWidth="1.5"
      />
      <line
        x1={CENTRE_X}
        y1={CENTRE_Y}
        x2={handX}
        y2={handY}
        className="stroke-receive"
        strokeWidth="5"
        strokeLinecap="round"
      />
      {places.map((id, index) => {
        const n = index + 1;
        const [dotX, dotY] = at(n, RADIUS + 11);
        const [textX, textY] = at(n, RADIUS + 25);
        return (
          // The list of positions beside it takes the keys.

          <g key={n} onClick={() => onPosition(n)} className="cursor-pointer">
            <circle
              cx={dotX}
              cy={dotY}
              r="5"
              className={clsx(
                n === position ? 'stroke-ink' : 'stroke-line-strong',
                id ? 'fill-receive' : 'fill-sheet',
              )}
              strokeWidth={n === position ? 2 : 1}
            />
            <text
              x={textX}
              y={textY + 4}
              textAnchor="middle"
              className={clsx('mono text-[11px]', n === position ? 'fill-ink font-bold' : 'fill-soft')}
            >
              {n}
            </text>
          </g>
        );
      })}
      <text
        x={CENTRE_X}
        y={178}
        textAnchor="middle"
        className={clsx('text-[13px]', name === null ? 'fill-soft' : 'fill-ink font-semibold')}
      >
        {name ?? 'empty: the radio is silent'}
      </text>
    </svg>
  );
}
