'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Candidate } from '@/core/directory';
import { Button, Field, TickField } from '@/ui';

/** Chooses many at once: all that are shown, or the first so many, of all or of each band. */
export function ChooseMenu({
  shown,
  onFirst,
}: {
  shown: readonly Candidate[];
  onFirst: (n: number, each: boolean) => void;
}) {
  const [open, setOpen] = useState(false);
  const [n, setN] = useState('30');
  const [each, setEach] = useState(false);
  const fit = shown.filter(({ unfit }) => unfit === null).length;
  const wanted = /^\d{1,4}$/.test(n.trim()) ? Number(n) : 0;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="inline-flex h-7 items-center gap-1 rounded-md border border-line-strong px-2 text-[13px] hover:bg-sunk">
        Choose… <ChevronDown size={13} aria-hidden className="text-soft" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Choose many"
          className="z-40 w-64 rounded-md border border-line-strong bg-sheet p-3 text-[13px] shadow-lg"
        >
          <form
            className="flex flex-col gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (wanted === 0) return;
              onFirst(wanted, each);
              setOpen(false);
            }}
          >
            <Button
              size="small"
              onClick={() => {
                onFirst(shown.length, false);
                setOpen(false);
              }}
            >
              All {fit} that fit
            </Button>
            <Field
              label="The first of the list"
              inputMode="numeric"
              value={n}
              onChange={(event) => setN(event.target.value)}
              problem={wanted === 0 ? 'A number' : undefined}
            />
            <TickField checked={each} onChange={setEach}>
              of each band
            </TickField>
            <Button size="small" kind="strong" type="submit">
              Choose {wanted || ''}
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
