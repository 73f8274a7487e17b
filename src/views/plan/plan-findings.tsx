import type { MendableFinding } from '@/core/check';
import type { Edit } from '@/core/plan';
import { Button, SeverityMark } from '@/ui';
import { item } from './side-list';

/** What Check says of the plan as a whole, above all else, with the ways out. */
export function PlanFindings({
  findings,
  onMend,
}: {
  findings: readonly MendableFinding[];
  onMend: (edit: Edit) => void;
}) {
  return (
    <ul aria-label="About the plan as a whole" className="max-h-[55%] shrink-0 overflow-y-auto">
      {findings.map(({ rule, severity, text, mends }) => (
        <li key={rule} className={item}>
          <p className="flex items-baseline gap-2">
            <SeverityMark severity={severity} />
            <span className="min-w-0 flex-1">{text}</span>
          </p>
          {mends.length > 0 && (
            <p className="flex flex-wrap gap-1.5 pt-1 pl-5">
              {mends.map(({ label, edit }) => (
                <Button key={label} size="small" onClick={() => onMend(edit)}>
                  {label}
                </Button>
              ))}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
