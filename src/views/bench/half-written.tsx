import type { Radio } from '@/core/bench';
import { Button } from '@/ui';
import { hasCard } from './has-card';
import type { BenchInHand } from './use-bench';

/** What a radio is in which a write broke off, and what can be done. */
export function HalfWritten({ radio, hand, how }: { radio: Radio; hand: BenchInHand; how: string | null }) {
  const { called, port, canResume } = radio;
  return (
    <div
      role="alert"
      aria-label={how === null ? undefined : 'Under way'}
      className="flex shrink-0 items-center gap-3 rounded-md border border-stop bg-stop-wash px-3 py-2"
    >
      <p className="min-w-0 flex-1">
        {how === null ? (
          <>
            {hasCard(radio) ? (
              <>
                <b className="font-semibold">The card of {called} is copied in part.</b> The radio takes
                nothing of it, and is as it was. {port === null ? 'Put the card in; then ' : 'You can '}
              </>
            ) : (
              <>
                <b className="font-semibold">{called} is half written.</b> It hears and sends nothing until it
                is written whole. {port === null ? 'Plug it in; then ' : 'You can '}
              </>
            )}
            {canResume ? 'go on with the write that broke off, ' : ''}write the plan anew, or restore a sealed
            copy.
          </>
        ) : (
          <>
            <b className="font-semibold">Broken off.</b> {how}
          </>
        )}
      </p>
      {canResume && (
        <Button
          kind="strong"
          disabled={port === null}
          onClick={() => hand.start.mutate({ kind: 'resume', radioId: radio.id })}
        >
          Go on with the write
        </Button>
      )}
    </div>
  );
}
