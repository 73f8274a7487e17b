import { Button, SeverityMark } from '@/ui';

/** A plan of the list that cannot be opened: what is wrong with it, and what can be had of it all the same. */
export function UnreadablePlan({
  plan,
  onOpen,
}: {
  plan: { id: string; name: string; trouble: string | null; readable: number | null };
  onOpen: () => void;
}) {
  return (
    <div className="flex min-w-0 flex-1 flex-wrap items-center justify-between gap-x-8 gap-y-2 px-2 py-4">
      <span className="min-w-0 flex-1 basis-72 text-[13px] text-soft">
        <b className="block truncate text-[16px] font-semibold text-ink">{plan.name}</b>
        <span className="flex items-baseline gap-1.5">
          <SeverityMark severity="stop" size={10} label={false} />
          <span className="line-clamp-3 break-words">Cannot be opened. {plan.trouble}</span>
        </span>
      </span>
      <span className="flex shrink-0 items-center gap-3 text-[13px]">
        {plan.readable !== null && (
          <Button size="small" onClick={onOpen}>
            Open revision {plan.readable} as a new plan
          </Button>
        )}
        <a className="underline hover:text-ink" href={`/api/plans/${plan.id}/document`} download>
          Save its document
        </a>
      </span>
    </div>
  );
}
