'use client';

import clsx from 'clsx';
import { Check } from 'lucide-react';
import { Checkbox } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';

/** A box that is ticked or not, without words beside it; `aria-label` says what for. */
export function Tick({ className, ...rest }: ComponentProps<typeof Checkbox.Root>) {
  return (
    <Checkbox.Root
      {...rest}
      className={clsx(
        'inline-flex size-[15px] shrink-0 items-center justify-center rounded-[3px] border border-line-strong bg-sheet align-[-2px] text-sheet',
        'data-[state=checked]:border-ink data-[state=checked]:bg-ink disabled:border-line disabled:bg-sunk',
        className,
      )}
    >
      <Checkbox.Indicator>
        <Check size={12} strokeWidth={3} aria-hidden />
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}

/** A box with what it is for beside it. */
export function TickField({
  checked,
  onChange,
  children,
  title,
  className,
  disabled,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
  title?: string;
  className?: string;
  disabled?: boolean;
}) {
  return (
    // The box is a button, which a label around it names and reaches.
    <label className={clsx('flex items-start gap-1.5', className)} title={title}>
      <Tick
        className="mt-[2.5px]"
        checked={checked}
        disabled={disabled}
        onCheckedChange={(now) => onChange(now === true)}
      />
      <span>{children}</span>
    </label>
  );
}
