'use client';

import type { Batch } from '@/core/bench';
import { Button, Moment } from '@/ui';
import { Report } from './several-panel';

/** What came of writing one plan to several radios, as a sheet of paper. */
export function ReportPage({ batch }: { batch: Batch }) {
  return (
    <main className="mx-auto w-full max-w-3xl overflow-y-auto px-6 py-5 print:max-w-none print:p-0">
      <div className="flex items-baseline gap-3 pb-2">
        <h1 className="flex-1 text-[21px] font-semibold">Written to several radios</h1>
        <span className="text-[13px] text-soft">
          <Moment at={batch.at} />
        </span>
        <Button className="print:hidden" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <Report batch={batch} />
    </main>
  );
}
