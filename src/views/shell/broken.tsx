'use client';

import { Button } from '@/ui';

/** A page that could not be made. */
export function Broken({ onAgain }: { onAgain: () => void }) {
  return (
    <main className="grid h-full place-items-center">
      <div className="max-w-md">
        <h1 className="text-[21px] font-semibold">This page could not be made</h1>
        <p className="py-3 text-soft">
          Nothing of yours is lost. The server’s output says why: often the data directory is full or cannot
          be written.
        </p>
        <Button onClick={onAgain}>Try again</Button>
      </div>
    </main>
  );
}
