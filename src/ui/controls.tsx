import clsx from 'clsx';
import type { ButtonHTMLAttributes, InputHTMLAttributes, ReactNode, Ref } from 'react';

type ButtonKind = 'plain' | 'strong' | 'quiet';

const KINDS: Record<ButtonKind, string> = {
  plain: 'border border-line-strong bg-sheet hover:bg-sunk',
  strong: 'border border-action bg-action text-action-ink hover:opacity-90',
  quiet: 'border border-transparent hover:bg-sunk',
};

type ButtonSize = 'usual' | 'small' | 'icon';

const SIZES: Record<ButtonSize, string> = { usual: 'h-8 px-3', small: 'h-7 px-2', icon: 'size-8' };

/** A button; `strong` for the one thing that a screen is for. `icon` wants an `aria-label`. */
export function Button({
  kind = 'plain',
  size = 'usual',
  className,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: ButtonKind; size?: ButtonSize }) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex items-center justify-center gap-1.5 whitespace-nowrap rounded-md text-[13px] font-medium',
        'disabled:cursor-not-allowed disabled:border-line disabled:bg-transparent disabled:text-soft',
        KINDS[kind],
        SIZES[size],
        className,
      )}
      {...rest}
    />
  );
}

/** A key as it is written on a keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="mono rounded border border-line-strong bg-sheet px-1 py-px text-[11px] text-ink">
      {children}
    </kbd>
  );
}

/** Several keys of one shortcut: `Ctrl K`. */
export function Keys({ keys }: { keys: string }) {
  return (
    <span className="inline-flex gap-0.5">
      {keys.split(' ').map((key) => (
        <Key key={key}>{key}</Key>
      ))}
    </span>
  );
}

/** A labelled text field; `problem` says in a sentence what is wrong with it. */
export function Field({
  label,
  problem,
  className,
  ref,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; problem?: string; ref?: Ref<HTMLInputElement> }) {
  const problemId = rest.id ? `${rest.id}-problem` : undefined;
  return (
    <label className={clsx('flex flex-col gap-1 text-[13px] text-soft', className)}>
      {label}
      <input
        ref={ref}
        className={clsx(
          'h-8 rounded-md border bg-sheet px-2 text-[14px] text-ink',
          problem ? 'border-stop' : 'border-line-strong',
        )}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? problemId : undefined}
        {...rest}
      />
      {problem && (
        <span id={problemId} role="alert" className="text-stop">
          {problem}
        </span>
      )}
    </label>
  );
}

/** A pane that scrolls, and that the arrow keys scroll too: for lists with nothing in them to stop at. */
export function Scroll({
  label,
  className,
  children,
  live = false,
}: {
  label: string;
  className?: string;
  children: ReactNode;
  /** What changes in it is read out. */
  live?: boolean;
}) {
  return (
    <div
      role="region"
      aria-label={label}
      aria-live={live ? 'polite' : undefined}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard
      tabIndex={0}
      className={clsx('min-h-0 overflow-y-auto', className)}
    >
      {children}
    </div>
  );
}

/** What went wrong, where it happened. */
export function Trouble({ children, className }: { children: ReactNode; className?: string }) {
  return (
    <p
      role="alert"
      className={clsx('rounded-md border border-stop bg-stop-wash px-3 py-2 text-[13px] text-ink', className)}
    >
      {children}
    </p>
  );
}
