'use client';

import type { Model } from '@/core/models';

/** What it takes to get a radio of this model ready for its cable or card: what to do, and what it shows then. */
export function GetReady({ model }: { model: Model }) {
  return (
    <ol aria-label={`Getting the ${model.name} ready`} className="list-inside list-decimal text-[13px]">
      {model.getReady.map(({ what, shows }) => (
        <li key={what}>
          {what}
          {shows && <span className="text-soft"> It shows: {shows}.</span>}
        </li>
      ))}
    </ol>
  );
}
