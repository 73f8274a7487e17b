'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { sentenceOf } from '@/api/call';
import { OUT_FORMATS, OUT_NAMES, type OutFormat } from '@/core/interchange';
import { Choice, Trouble } from '@/ui';

/** Something that can be taken out: all of a plan, what is chosen of it, what a search found. */
export interface Outgoing {
  key: string;
  label: string;
  take: (format: OutFormat) => Promise<{ name: string; bytes: Blob }>;
  /** What a format cannot hold of it, in words that follow “without”. */
  losses: (format: OutFormat) => readonly string[];
}

/** Hands a file to the browser, which saves it. */
function save({ name, bytes }: { name: string; bytes: Blob }): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(bytes);
  link.download = name;
  link.click();
  // When the browser has taken hold of it.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Takes channels out: as which file, what each cannot hold, and what else is made of them. */
export function OutMenu({
  what,
  className,
  children,
}: {
  what: readonly Outgoing[];
  className?: string | undefined;
  children?: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  const [key, setKey] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState<OutFormat | null>(null);
  const chosen = what.find((one) => one.key === key) ?? what[0];
  if (!chosen) return null;
  const take = async (format: OutFormat) => {
    setBusy(format);
    setTrouble('');
    try {
      save(await chosen.take(format));
      setOpen(false);
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    setBusy(null);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className={className}>
        Take out <ChevronDown size={13} aria-hidden className="text-soft" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Take out"
          className="z-40 flex w-[340px] flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 text-[13px] shadow-lg"
        >
          {what.length > 1 && (
            <Choice
              label="What"
              value={chosen.key}
              options={what.map((one) => [one.key, one.label] as const)}
              onChange={setKey}
            />
          )}
          <Files of={chosen} busy={busy} take={(format) => void take(format)} />
          {trouble && <Trouble>{trouble}</Trouble>}
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Which files there are, and what each cannot hold: looked through once the menu is open, since it takes the whole plan. */
function Files({
  of,
  busy,
  take,
}: {
  of: Outgoing;
  busy: OutFormat | null;
  take: (format: OutFormat) => void;
}) {
  return (
    <ul aria-label="As a file">
      {OUT_FORMATS.map((format) => {
        const { name, use } = OUT_NAMES[format];
        const losses = of.losses(format);
        return (
          <li key={format}>
            <button
              type="button"
              disabled={busy !== null}
              aria-describedby={losses.length > 0 ? `out-${format}` : undefined}
              className="grid w-full grid-cols-[72px_1fr] items-baseline gap-x-2 rounded px-1.5 py-1 text-left hover:bg-sunk disabled:opacity-60"
              onClick={() => take(format)}
            >
              <span className="font-medium">{name}</span>{' '}
              <span>{busy === format ? 'is being written…' : use}</span>
            </button>
            {losses.length > 0 && (
              <p id={`out-${format}`} className="pb-1 pl-[86px] text-[12px] text-soft">
                without {losses.join(', ')}
              </p>
            )}
          </li>
        );
      })}
    </ul>
  );
}
