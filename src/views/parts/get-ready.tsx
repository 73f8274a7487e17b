'use client';

import type { Model } from '@/core/models';

/** What it takes to get a radio of this model ready for its cable or card: what to do, and what it shows then; what is to be done after a write apart. */
export function GetReady({ model }: { model: Model }) {
  const after = model.getReady.filter(({ when }) => when === 'after');
  return (
    <>
      <ol aria-label={`Getting the ${model.name} ready`} className="list-inside list-decimal text-[13px]">
        {model.getReady
          .filter(({ when }) => when !== 'after')
          .map(({ what, shows }) => (
            <li key={what}>
              {what}
              {shows && <span className="text-soft"> It shows: {shows}.</span>}
            </li>
          ))}
      </ol>
      {after.map(({ what, shows }) => (
        <p key={what} className="pt-1 text-[13px]">
          <span className="text-soft">Once it is written: </span>
          {what}
          {shows && <span className="text-soft"> It shows: {shows}.</span>}
        </p>
      ))}
    </>
  );
}
