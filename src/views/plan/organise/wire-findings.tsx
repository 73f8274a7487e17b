import { Button, Scroll, SeverityMark } from '@/ui';
import type { Organising } from './use-organise';

const WIRED = new Set(['channel', 'talkgroup', 'receiveList', 'scanList']);

/** What is broken in the wiring, the worst first: what will not be heard or answered, why, and the ways out. */
export function WireFindings({
  organising,
  onFollow,
}: {
  organising: Organising;
  onFollow: (key: string) => void;
}) {
  const { besides, run } = organising;
  const rank = { stop: 0, caution: 1, hint: 2 };
  const found = besides
    .filter(({ kind }) => WIRED.has(kind))
    .sort((a, b) => rank[a.severity] - rank[b.severity]);
  if (found.length === 0)
    return (
      <p className="shrink-0 border-t border-line-strong px-3 py-2 text-[13px] text-soft">
        Nothing is broken: every chain leads somewhere.
      </p>
    );
  return (
    <div className="flex max-h-[34%] shrink-0 flex-col border-t border-line-strong">
      <h2 className="px-3 pt-1.5 text-[12px] font-semibold text-soft">
        {found.length === 1 ? 'One thing' : `${found.length} things`} to look at
      </h2>
      <Scroll label="What is broken" className="px-3 pb-2">
        <ul className="flex flex-col">
          {found.slice(0, 200).map(({ rule, kind, id, severity, text, mends }) => (
            <li
              key={`${rule} ${id} ${text}`}
              className="flex items-center gap-2 border-b border-line py-1 text-[13px] last:border-0"
            >
              <SeverityMark severity={severity} size={11} />
              <button
                type="button"
                className="min-w-0 flex-1 text-left hover:underline"
                onClick={() => onFollow(`${kind} ${id}`)}
              >
                {text}
              </button>
              <span className="flex shrink-0 gap-1.5">
                {mends.slice(0, 2).map(({ label, edit }) => (
                  <Button key={label} size="small" onClick={() => run(edit, `${label}: done.`)}>
                    {label}
                  </Button>
                ))}
              </span>
            </li>
          ))}
        </ul>
      </Scroll>
    </div>
  );
}
