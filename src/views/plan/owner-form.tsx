'use client';

import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import {
  additionsOf,
  ALLOCATION_SOURCES,
  citation,
  OWNER_GRADES,
  GRADE_NAMES,
  REGIONS,
  parseLocator,
  REGION_NAMES,
  type AdditionId,
} from '@/core/radio';
import { Choice, Field, TickField } from '@/ui';
import type { PlanInHand } from './use-plan';
import { useDesk } from './desk';

/** Call sign, rules and grade; changed as they are typed. `chip` is what it hangs on. */
export function OwnerForm({ chip, onClose }: { chip: ReactNode; onClose: () => void }) {
  const { hand } = useDesk();
  const { owner } = hand.plan;
  const [callSign, setCallSign] = useState(owner.callSign);
  const [home, setHome] = useState(owner.locator ?? '');
  const set = (change: Partial<typeof owner>) =>
    hand.store.apply({ name: 'describe', set: { owner: change } });
  return (
    <Popover.Root defaultOpen onOpenChange={(open) => !open && onClose()}>
      <Popover.Trigger asChild>{chip}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          className="z-40 flex w-80 max-h-(--radix-popover-content-available-height) overflow-y-auto flex-col gap-3 rounded-md border border-line-strong bg-sheet p-4 shadow-lg"
        >
          <p className="text-[13px] text-soft">Every transmit frequency is held against this licence.</p>
          <Field
            label="Call sign"
            maxLength={16}
            value={callSign}
            onChange={(event) => setCallSign(event.target.value.toUpperCase())}
            onBlur={() => callSign !== owner.callSign && set({ callSign })}
          />
          <Field
            label="At home in (locator)"
            placeholder="HO52ka"
            maxLength={8}
            value={home}
            problem={
              home === '' || parseLocator(home).ok ? undefined : 'A locator reads like HO52 or HO52ka.'
            }
            onChange={(event) => setHome(event.target.value)}
            onBlur={() =>
              home !== (owner.locator ?? '') &&
              (home === '' || parseLocator(home).ok) &&
              set({ locator: home })
            }
          />
          <Choice
            label="Rules of"
            value={owner.region}
            options={REGIONS.map((region) => [region, REGION_NAMES[region]] as const)}
            onChange={(region) => set({ region, additions: [] })}
          />
          <p className="-mt-2 text-[12px] text-soft">{citation(ALLOCATION_SOURCES[owner.region])}</p>
          <Additions owner={owner} onChange={(additions) => set({ additions })} />
          <Choice
            label="Licence grade"
            value={owner.grade}
            options={OWNER_GRADES.map((grade) => [grade, GRADE_NAMES[grade]] as const)}
            onChange={(grade) => set({ grade })}
          />
          <TickField checked={owner.marine ?? false} onChange={(marine) => set({ marine })}>
            A ship’s or coast station’s plan, under a marine certificate
          </TickField>
          <TickField checked={owner.strict} onChange={(strict) => set({ strict })}>
            Guard strictly: transmitting outside the licence is a stop and is not written
          </TickField>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** What the country has beyond its region's common table, to be ticked by name and footnote. */
function Additions({
  owner: { region, additions = [] },
  onChange,
}: {
  owner: PlanInHand['plan']['owner'];
  onChange: (additions: AdditionId[]) => void;
}) {
  const known = additionsOf(region);
  if (known.length === 0) return null;
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="pb-1.5 text-[13px]">What your country has beyond it</legend>
      {known.map(({ id, name, source }) => (
        <TickField
          key={id}
          checked={additions.includes(id as AdditionId)}
          onChange={(on) =>
            onChange(on ? [...additions, id as AdditionId] : additions.filter((other) => other !== id))
          }
        >
          {name}
          <span className="block text-[12px] text-soft">{citation(source)}</span>
        </TickField>
      ))}
    </fieldset>
  );
}
