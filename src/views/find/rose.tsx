'use client';

import clsx from 'clsx';
import type { Candidate } from '@/core/directory';
import { formatDistance, inUnit, type DistanceUnit } from '@/core/radio';

interface Props {
  candidates: readonly Candidate[];
  /** Of the circle, km. */
  radius: number;
  unit: DistanceUnit;
  chosen: ReadonlySet<string>;
  lit: string | null;
  onLit: (ref: string | null) => void;
  onChoose: (refs: string[], on: boolean) => void;
}

const SIZE = 250;
const MIDDLE = SIZE / 2;
const REACH = 104;

/** The stations around the place, as on a compass rose: direction and distance. */
export function Rose({ candidates, radius, unit, chosen, lit, onLit, onChoose }: Props) {
  const spot = ({ bearing, distance }: Candidate) => {
    const angle = ((bearing - 90) * Math.PI) / 180;
    const r = (Math.min(distance, radius) / radius) * REACH;
    return { cx: MIDDLE + Math.cos(angle) * r, cy: MIDDLE + Math.sin(angle) * r };
  };
  const ordered = [...candidates].sort(
    (a, b) => Number(chosen.has(a.entry.ref)) - Number(chosen.has(b.entry.ref)),
  );
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      className="mx-auto block w-full max-w-[212px]"
      role="img"
      aria-label={`${candidates.length} stations within ${formatDistance(radius, unit)}, by direction and distance`}
    >
      {[1 / 3, 2 / 3, 1].map((part) => (
        <circle
          key={part}
          cx={MIDDLE}
          cy={MIDDLE}
          r={REACH * part}
          fill="none"
          stroke="var(--line-strong)"
          strokeWidth={part === 1 ? 1.2 : 0.7}
        />
      ))}
      {Array.from({ length: 72 }, (_, i) => (
        <path
          key={i}
          d={`M${MIDDLE} ${MIDDLE - REACH}v${i % 18 === 0 ? -9 : i % 2 === 0 ? -5 : -3}`}
          transform={`rotate(${i * 5} ${MIDDLE} ${MIDDLE})`}
          stroke="var(--ink)"
          strokeWidth={i % 18 === 0 ? 1.4 : 0.6}
        />
      ))}
      {(['N', 'E', 'S', 'W'] as const).map((point, i) => {
        const angle = ((i * 90 - 90) * Math.PI) / 180;
        return (
          <text
            key={point}
            x={MIDDLE + Math.cos(angle) * (REACH + 16)}
            y={MIDDLE + Math.sin(angle) * (REACH + 16) + 4}
            fontSize="11"
            fontWeight="600"
            textAnchor="middle"
            fill="var(--ink)"
          >
            {point}
          </text>
        );
      })}
      <path
        d={`M${MIDDLE - 4} ${MIDDLE}h8M${MIDDLE} ${MIDDLE - 4}v8`}
        stroke="var(--ink)"
        strokeWidth="1.4"
      />
      {ordered.map((candidate) => {
        const { ref } = candidate.entry;
        const on = chosen.has(ref);
        return (
          <circle
            key={ref}
            {...spot(candidate)}
            r={lit === ref ? 6 : on ? 4.5 : 3}
            className={clsx('cursor-pointer', candidate.unfit !== null && 'pointer-events-none')}
            fill={
              candidate.unfit !== null
                ? 'var(--line-strong)'
                : on || lit === ref
                  ? 'var(--receive)'
                  : 'var(--sheet)'
            }
            stroke={candidate.unfit !== null ? 'none' : lit === ref ? 'var(--ink)' : 'var(--receive)'}
            strokeWidth="1.5"
            onMouseEnter={() => onLit(ref)}
            onMouseLeave={() => onLit(null)}
            onClick={() => onChoose([ref], !on)}
          >
            <title>{`${candidate.entry.site}, ${formatDistance(candidate.distance, unit)} ${candidate.wind}`}</title>
          </circle>
        );
      })}
      {[1 / 3, 2 / 3, 1].map((part) => (
        <text
          key={part}
          x={MIDDLE + 3}
          y={MIDDLE - REACH * part + 11}
          fontSize="9"
          fill="var(--soft)"
          stroke="var(--sheet)"
          strokeWidth="3"
          paintOrder="stroke"
          pointerEvents="none"
        >
          {Math.round(inUnit(radius * part, unit))} {unit}
        </text>
      ))}
    </svg>
  );
}
