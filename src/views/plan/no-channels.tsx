import Link from 'next/link';
import type { PlanId } from '@/core/plan';

const way =
  'inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-3 text-[13px] font-medium text-ink hover:bg-sunk';

/** What stands where a plan has no channel yet: what will be here, and the ways to begin. */
export function NoChannels({ planId, children }: { planId: PlanId; children: string }) {
  return (
    <div className="m-auto flex max-w-md flex-col items-center gap-3 p-6 text-center text-[14px] text-soft">
      <p>{children}</p>
      <p className="flex flex-wrap justify-center gap-2">
        <Link prefetch={false} href={`/find?plan=${planId}`} className={way}>
          Find stations
        </Link>
        <Link prefetch={false} href={`/plans/${planId}`} className={way}>
          Type the first channel
        </Link>
      </p>
    </div>
  );
}
