'use client';

import clsx from 'clsx';
import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import { useId } from 'react';

/** A labelled choice of one among several, each a value with what people read. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  className,
  autoFocus,
  hideLabel = false,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  className?: string;
  autoFocus?: boolean;
  /** For screen readers alone, where the place says what it is. */
  hideLabel?: boolean;
}) {
  const id = useId();
  return (
    <div className={clsx('flex flex-col gap-1 text-[13px] text-soft', className)}>
      <label htmlFor={id} className={clsx(hideLabel && 'sr-only')}>
        {label}
      </label>
      <Select.Root value={value} onValueChange={(next) => onChange(next as T)}>
        <Select.Trigger
          id={id}
          autoFocus={autoFocus}
          className="flex h-8 w-full items-center justify-between gap-1 rounded-md border border-line-strong bg-sheet px-2 text-left text-[14px] text-ink"
        >
          <span className="min-w-0 flex-1 truncate">
            <Select.Value />
          </span>
          <Select.Icon>
            <ChevronDown size={14} aria-hidden className="text-soft" />
          </Select.Icon>
        </Select.Trigger>
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={3}
            className="z-50 max-h-[min(320px,var(--radix-select-content-available-height))] min-w-[var(--radix-select-trigger-width)] overflow-hidden rounded-md border border-line-strong bg-sheet shadow-lg"
          >
            <Select.Viewport className="p-1">
              {options.map(([key, text]) => (
                <Select.Item
                  key={key}
                  value={key}
                  className="flex cursor-default items-center justify-between gap-3 rounded px-2 py-1 text-[14px] text-ink outline-none data-[highlighted]:bg-sunk"
                >
                  <Select.ItemText>{text}</Select.ItemText>
                  <Select.ItemIndicator>
                    <Check size={13} aria-hidden />
                  </Select.ItemIndicator>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      </Select.Root>
    </div>
  );
}
