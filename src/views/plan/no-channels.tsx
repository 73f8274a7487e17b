import Link from 'next/link';
import type { PlanId } from '@/core/plan';
import { Button } from '@/ui';

function Way({ href, children }: { href: string; children: string }) {
  return (
    <Link
      prefetch={false}
      href={href}
      className="inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-3 text-[13px] font-medium text-ink hover:bg-sunk"
    >
      {children}
    </Link>
  );
}

/** What stands where a plan has no channel yet: what will be here, and the ways to begin. */
export function NoChannels({ planId, children }: { planId: PlanId; children: string }) {
  return (
    <div className="m-auto flex max-w-md flex-col items-center gap-3 p-6 text-center text-[14px] text-soft">
      <p>{children}</p>
      <p className="flex flex-wrap justify-center gap-2">
        <Way href={`/find?plan=${planId}`}>Find stations</Way>
        <Way href={`/plans/${planId}`}>Type the first channel</Way>
      </p>
    </div>
  );
}

/** What stands below the empty row of a table that has no channel yet: every way to come by some. */
export function FirstSteps({
  planId,
  onFile,
  onList,
}: {
  planId: PlanId;
  onFile: () => void;
  onList: () => void;
}) {
  return (
    <section
      aria-label="How to begin"
      className="pointer-events-none absolute inset-x-0 top-1/2 flex -translate-y-1/2 flex-col items-center gap-3 px-6 text-center text-[14px] text-soft"
    >
      <p className="max-w-md">
        Type a frequency into the first row, paste rows of a spreadsheet or of a mail, drop a file anywhere.
        Or begin with what is on the air around you.
      </p>
      <div className="pointer-events-auto flex flex-wrap justify-center gap-2 text-ink">
        <Way href={`/find?plan=${planId}`}>Find stations</Way>
        <Button onClick={onList}>Type a list</Button>
        <Button onClick={onFile}>Take a file…</Button>
        <Way href="/bench">Read a radio</Way>
      </div>
    </section>
  );
}
