'use client';

import { Command as Menu } from 'cmdk';
import { useRouter } from 'next/navigation';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { ask, Keys, useAllCommands } from '@/ui';

interface Named {
  plans: { id: string; name: string; model: string }[];
  radios: { serial: string; model: string }[];
}

/** Everything by name: commands and channels of this screen, plans, radios. */
export function Palette({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const commands = useAllCommands();
  const [named, setNamed] = useState<Named>({ plans: [], radios: [] });
  useEffect(() => {
    void Promise.allSettled([
      ask<Pick<Named, 'plans'>>('/api/plans'),
      ask<Pick<Named, 'radios'>>('/api/radios'),
    ]).then(([plans, radios]) =>
      setNamed({
        plans: plans.status === 'fulfilled' ? plans.value.plans : [],
        radios: radios.status === 'fulfilled' ? radios.value.radios : [],
      }),
    );
  }, []);
  const groups = [...new Set(commands.map((command) => command.group))];
  const choose = (run: () => void) => () => {
    onClose();
    run();
  };
  const item =
    'flex cursor-default items-center justify-between gap-4 rounded px-2 py-1.5 text-[14px] data-[selected=true]:bg-sunk';
  const heading =
    '[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:py-1 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft';
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[12vh] z-50 w-[min(600px,92vw)] -translate-x-1/2 rounded-lg border border-line-strong bg-sheet shadow-xl"
        >
          <Dialog.Title className="sr-only">Find any command, channel, radio or plan</Dialog.Title>
          <Menu label="Find any command, channel, radio or plan">
            <Menu.Input
              placeholder="Command, channel, radio or plan"
              className="w-full border-b border-line bg-transparent px-4 py-3 text-[15px] outline-none placeholder:text-soft"
            />
            <Menu.List className="max-h-[52vh] overflow-y-auto p-1.5">
              <Menu.Empty className="px-2 py-4 text-soft">Nothing here has that name.</Menu.Empty>
              {groups.map((group) => (
                <Menu.Group key={group} heading={group} className={heading}>
                  {commands
                    .filter((command) => command.group === group)
                    .map((command) => (
                      <Menu.Item
                        key={command.id}
                        value={`${command.label} ${command.words ?? ''} ${command.id}`}
                        onSelect={choose(command.run)}
                        className={item}
                      >
                        {command.label}
                        {command.keys && <Keys keys={command.keys} />}
                      </Menu.Item>
                    ))}
                </Menu.Group>
              ))}
              {named.plans.length > 0 && (
                <Menu.Group heading="Plans" className={heading}>
                  {named.plans.map((plan) => (
                    <Menu.Item
                      key={plan.id}
                      value={`plan ${plan.name} ${plan.id}`}
                      onSelect={choose(() => router.push(`/plans/${plan.id}`))}
                      className={item}
                    >
                      {plan.name}
                      <span className="text-soft">{plan.model}</span>
                    </Menu.Item>
                  ))}
                </Menu.Group>
              )}
              {named.radios.length > 0 && (
                <Menu.Group heading="Radios" className={heading}>
                  {named.radios.map((radio) => (
                    <Menu.Item
                      key={radio.serial}
                      value={`radio ${radio.model} ${radio.serial}`}
                      onSelect={choose(() => router.push('/bench'))}
                      className={item}
                    >
                      {radio.model}
                      <span className="mono text-soft">{radio.serial}</span>
                    </Menu.Item>
                  ))}
                </Menu.Group>
              )}
            </Menu.List>
          </Menu>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
