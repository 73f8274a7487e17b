'use client';

import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { SORT_KEYS } from '@/core/plan';
import { Button, Keys } from '@/ui';
import { SORT_LABELS } from './sort-labels';
import type { Actions } from './use-actions';

/** What orders the slots; `chosen` is how many channels are chosen. */
export function ArrangeMenu({
  actions,
  chosen,
  onClose,
}: {
  actions: Actions;
  chosen: number;
  onClose: () => void;
}) {
  const item =
    'flex cursor-default items-center justify-between gap-6 rounded px-2 py-1 text-[13px] outline-none data-[highlighted]:bg-sunk';
  return (
    <DropdownMenu.Root defaultOpen onOpenChange={(open) => !open && onClose()}>
      <DropdownMenu.Trigger asChild>
        <Button kind="quiet" className="h-7 px-2">
          Arrange
          <ChevronDown size={14} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={4}
          className="z-40 w-64 rounded-md border border-line-strong bg-sheet p-1 shadow-lg"
        >
          <DropdownMenu.Item className={item} onSelect={actions.moveUp}>
            Up one row <Keys keys="Alt Up" />
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={actions.moveDown}>
            Down one row <Keys keys="Alt Down" />
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={actions.closeGaps}>
            Close the gaps between slots
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-line" />
          <DropdownMenu.Label className="px-2 py-1 text-[12px] text-soft">
            {chosen > 1 ? `Sort the ${chosen} chosen by` : 'Sort all by'}
          </DropdownMenu.Label>
          {SORT_KEYS.map((key) => (
            <DropdownMenu.Item key={key} className={item} onSelect={() => actions.sort(key)}>
              {SORT_LABELS[key]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
