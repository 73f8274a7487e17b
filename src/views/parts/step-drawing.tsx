import type { Model } from '@/core/models';

/** What a hand is at in a step, drawn with a few lines: told in words beside it. */
export function StepDrawing({ part }: { part: Model['getReady'][number]['part'] }) {
  return (
    <svg
      width={44}
      height={30}
      viewBox="0 0 44 30"
      aria-hidden
      className="shrink-0 text-soft"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.5}
      strokeLinecap="round"
      strokeLinejoin="round"
    >
      {DRAWINGS[part]}
    </svg>
  );
}

/** The set's edge, on the left of every drawing. */
const EDGE = <path d="M13 2v26M13 2H4M13 28H4" />;
/** What the hand moves is strong. */
const STRONG = 'text-ink';

const DRAWINGS = {
  // A plug before its socket.
  cable: (
    <>
      {EDGE}
      <path d="M13 11h-4v8h4" />
      <g stroke="currentColor" className={STRONG}>
        <path d="M20 12h8v6h-8zM28 15h4c4 0 4 6 8 6M20 15h-4" />
        <path d="m17 13-2 2 2 2" />
      </g>
    </>
  ),
  // A switch that is turned on.
  switch: (
    <>
      <path d="M4 28h36" />
      <g stroke="currentColor" className={STRONG}>
        <path d="M17.5 8.5a8 8 0 1 0 9 0" />
        <path d="M22 4v9" />
      </g>
    </>
  ),
  // A knob that is held down.
  knob: (
    <>
      <path d="M4 26h36M12 26v-4h20v4" />
      <g stroke="currentColor" className={STRONG}>
        <path d="M16 22v-8h12v8M22 2v7" />
        <path d="m19 7 3 3 3-3" />
      </g>
    </>
  ),
  // A line that is chosen in a menu.
  menu: (
    <>
      <rect x={7} y={3} width={30} height={24} rx={3} />
      <path d="M12 9h14M12 21h10" />
      <path d="M12 15h20" stroke="currentColor" strokeWidth={4} className={STRONG} />
    </>
  ),
  // A card on its way.
  card: (
    <>
      {EDGE}
      <path d="M13 9h-5v12h5" />
      <g stroke="currentColor" className={STRONG}>
        <path d="M19 9h14l4 4v8H19zM24 9v4M28 9v4" />
      </g>
    </>
  ),
};
