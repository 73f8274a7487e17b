import clsx from 'clsx';
import { Link2, Unlink2 } from 'lucide-react';
import type { CSSProperties, PointerEvent } from 'react';
import type { Severity } from '@/core/check';
import type { WireNode } from '@/core/organise';
import { SeverityMark } from '@/ui';

/** A thing of the wiring: chosen to be followed, joined with what is followed, and a dot to draw wires from. */
export function WireNodeBox({
  node,
  wiredKey,
  style,
  focused,
  severity,
  join,
  onFollow,
  onJoin,
  onDraw,
}: {
  node: WireNode;
  wiredKey: string;
  style: CSSProperties;
  focused: boolean;
  /** The worst that Check says of it. */
  severity: Severity | null;
  /** What can be done between it and what is followed. */
  join: 'join' | 'part' | null;
  onFollow: () => void;
  onJoin: () => void;
  onDraw: (event: PointerEvent) => void;
}) {
  return (
    <li
      data-wired={wiredKey}
      style={style}
      className={clsx(
        'group absolute flex items-center rounded-md border bg-sheet',
        focused
          ? 'border-ink shadow-[inset_3px_0_0_var(--ink)]'
          : node.on
            ? 'border-line-strong'
            : 'border-line border-dashed',
      )}
    >
      <button
        type="button"
        aria-pressed={focused}
        className="flex h-full min-w-0 flex-1 flex-col justify-center px-2 text-left"
        onClick={onFollow}
      >
        <span
          className={clsx(
            'flex w-full items-center gap-1.5 text-[13px]',
            node.on ? 'font-medium' : 'text-soft',
          )}
        >
          {severity && <SeverityMark severity={severity} size={10} />}
          <span className="truncate">{node.name}</span>
        </span>
        <span className="w-full truncate text-[11px] text-soft">{node.detail}</span>
      </button>
      {join && (
        <button
          type="button"
          aria-label={join === 'join' ? `Join “${node.name}”` : `Part “${node.name}”`}
          title={join === 'join' ? 'Join' : 'Part'}
          className="grid size-6 shrink-0 place-items-center rounded text-soft hover:text-ink"
          onClick={onJoin}
        >
          {join === 'join' ? <Link2 size={13} aria-hidden /> : <Unlink2 size={13} aria-hidden />}
        </button>
      )}
      <span
        aria-hidden
        title="Draw a wire"
        className="absolute -right-[6px] top-1/2 size-3 -translate-y-1/2 cursor-crosshair touch-none rounded-full border border-line-strong bg-sheet hover:border-ink hover:bg-ink"
        onPointerDown={(event) => {
          event.preventDefault();
          event.currentTarget.releasePointerCapture?.(event.pointerId);
          onDraw(event);
        }}
      />
    </li>
  );
}
