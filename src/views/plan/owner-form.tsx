'use client';

import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { GRADES, GRADE_NAMES, REGIONS, REGION_NAMES } from '@/core/radio';
import { Choice, Field } from '@/ui';
import type { PlanInHand } from './use-plan';

/** Call sign, rules and grade; changed as they are typed. `chip` is what it hangs on. */
export function OwnerForm({
  hand,
  chip,
  onClose,
}: {
  hand: PlanInHand;
  chip: ReactNode;
  onClose: () => void;
}) {
  const { owner } = hand.plan;
  const [callSign, setCallSign] = useState(owner.callSign);
  const set = (change: Partial<typeof owner>) =>
    hand.store.apply({ name: 'describe', set: { owner: change } });
  return (
    <Popover.Root defaultOpen onOpenChange={(open) => !open && onClose()}>
      <Popover.Trigger asChild>{chip}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          className="z-40 flex w-72 flex-col gap-3 rounded-md border border-line-strong bg-sheet p-4 shadow-lg"
        >
          <p className="text-[13px] text-soft">Every transmit frequency is held against this licence.</p>
          <Field
            label="Call sign"
            maxLength={16}
            value={callSign}
            onChange={(event) => setCallSign(event.target.value.toUpperCase())}
            onBlur={() => callSign !== owner.callSign && set({ callSign })}
          />
          <Choice
            label="Rules of"
            value={owner.region}
            options={REGIONS.map((region) => [region, REGION_NAMES[region]] as const)}
            onChange={(region) => set({ region })}
          />
          <Choice
            label="Licence grade"
            value={owner.grade}
            options={GRADES.map((grade) => [grade, GRADE_NAMES[grade]] as const)}
            onChange={(grade) => set({ grade })}
          />
          <label className="flex items-start gap-2 text-[13px]">
            <input
              type="checkbox"
              className="mt-0.5"
              checked={owner.strict}
              onChange={(event) => set({ strict: event.target.checked })}
            />
            Guard strictly: transmitting outside the licence is a stop and is not written
          </label>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
