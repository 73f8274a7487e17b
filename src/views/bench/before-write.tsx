import type { WritePreview } from '@/core/bench';
import { slotText } from '@/core/plan';
import { Scroll } from '@/ui';

/** What is written all the same, and has a consequence; and what of the plan this radio holds otherwise or not at all. */
export function BeforeWrite({ cautions, leftOut }: Pick<WritePreview, 'cautions' | 'leftOut'>) {
  return (
    <>
      {cautions.length > 0 && (
        <details className="shrink-0 text-[13px]">
          <summary className="cursor-pointer">
            <b className="font-semibold text-caution">
              {cautions.length === 1 ? 'One caution' : `${cautions.length} cautions`}
            </b>{' '}
            <span className="text-soft">written all the same; mind what they do on air</span>
          </summary>
          <Scroll label="Cautions" className="max-h-40 pt-1">
            <ul>
              {cautions.map(({ slot, name, text }) => (
                <li key={`${slot ?? ''} ${name} ${text}`} className="py-0.5">
                  {slot !== null && (
                    <>
                      <span className="mono text-soft">{slotText(slot)}</span> {name}.{' '}
                    </>
                  )}
                  {text}
                </li>
              ))}
            </ul>
          </Scroll>
        </details>
      )}
      {leftOut.map(({ n, text, because }) => (
        <p key={`${text} ${because}`} className="shrink-0 text-[13px] text-soft">
          {n > 1 && `${n} times: `}
          {text}. {because}.
        </p>
      ))}
    </>
  );
}
