import type { ReactNode } from 'react';
import { SHAPE_NAMES, type MarkShape } from './marks';

const SHAPES: Record<MarkShape, ReactNode> = {
  disc: <circle cx="5" cy="5" r="3.4" />,
  square: <rect x="2" y="2" width="6" height="6" />,
  triangle: <path d="M5 1.2 8.8 8H1.2z" />,
  diamond: <path d="M5 1 9 5 5 9 1 5z" />,
  bar: <rect x="3.2" y="1" width="3.6" height="8" />,
  cross: <path d="M3.6 1h2.8v2.6H9v2.8H6.4V9H3.6V6.4H1V3.6h2.6z" />,
};

const ShapeMark = ({ shape }: { shape: MarkShape }) => (
  <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden className="fill-receive">
    {SHAPES[shape]}
  </svg>
);

/** What the marks on the map mean; those that are there. */
export const Legend = ({ shapes }: { shapes: readonly MarkShape[] }) => (
  <ul
    aria-label="What the marks mean"
    className="pointer-events-none absolute bottom-2 left-2 flex max-w-[80%] flex-wrap gap-x-2.5 rounded border border-line bg-sheet/90 px-2 py-0.5 text-[11.5px] text-soft"
  >
    {shapes.map((shape) => (
      <li key={shape} className="flex items-center gap-1">
        <ShapeMark shape={shape} /> {SHAPE_NAMES[shape]}
      </li>
    ))}
  </ul>
);
