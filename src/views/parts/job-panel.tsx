'use client';

import clsx from 'clsx';
import { Button } from '@/ui';
import type { Job } from '@/core/bench';
import { durationText } from '@/core/text';

const ENDED: Record<Exclude<Job['state'], 'running'>, string> = {
  done: 'Done',
  failed: 'Broken off',
  stopped: 'Stopped',
};

/** What a read or write is doing, how far, how long still; or how it ended. */
export function JobPanel({
  job,
  onStop,
  onDismiss,
}: {
  job: Job;
  onStop: () => void;
  onDismiss: () => void;
}) {
  const running = job.state === 'running';
  const percent = job.of === 0 ? 0 : Math.round((job.bytes / job.of) * 100);
  const bad = job.state === 'failed' || job.state === 'stopped';
  return (
    <section
      aria-label="Under way"
      className={clsx(
        'rounded-md border p-3',
        bad
          ? 'border-stop bg-stop-wash'
          : running
            ? 'border-ink bg-sheet'
            : 'border-line-strong bg-wash-faint',
      )}
    >
      {running ? (
        <>
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <span role="status">{job.message}</span>
            <span className="mono whitespace-nowrap text-[13px] text-soft">
              {job.of > 0 && `${job.bytes.toLocaleString()} of ${job.of.toLocaleString()} bytes`}
              {job.secondsLeft !== null && `, ${durationText(job.secondsLeft)} left`}
            </span>
          </div>
          <div className="mt-2 flex items-center gap-3">
            <div
              role="progressbar"
              aria-label={job.message}
              aria-valuenow={percent}
              aria-valuemin={0}
              aria-valuemax={100}
              className="relative h-3 flex-1 overflow-hidden rounded-sm border border-line-strong bg-sunk"
            >
              <div className="h-full bg-ink" style={{ width: `${percent}%` }} />
            </div>
            <Button size="small" onClick={onStop}>
              Stop
            </Button>
          </div>
          {job.kind !== 'read' && (
            <p className="pt-1.5 text-[12.5px] text-soft">
              {job.kind === 'people'
                ? 'Leave the cable in. Cut off, it goes on where it was; the plan in the radio is not touched.'
                : 'Leave the cable in. A write that is cut off can be mended from the sealed copy.'}
            </p>
          )}
        </>
      ) : (
        <div className="flex items-start justify-between gap-4">
          <p role={bad ? 'alert' : 'status'}>
            <b className="font-semibold">{ENDED[job.state as keyof typeof ENDED]}.</b> {job.message}
          </p>
          <Button kind="quiet" size="small" onClick={onDismiss}>
            All right
          </Button>
        </div>
      )}
    </section>
  );
}
