'use client';

import { Command as Menu, defaultFilter } from 'cmdk';
import { useRouter } from 'next/navigation';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { radioApi } from '@/api/radios';
import { Keys, useAllCommands, useListedCommands, type Command } from '@/ui';

/** Most that is drawn: who wants another types more of its name. */
const MOST = 60;

/** What can be found by name: commands and channels of this screen, plans, radios. */
function useFindable(): (Command & { aside?: string })[] {
  const router = useRouter();
  const commands = useAllCommands();
  const listed = useListedCommands();
  const plans = useQuery({
    queryKey: ['plans'],
    queryFn: () => call(planApi.planNames),
  });
  const radios = useQuery({
    queryKey: ['radios'],
    queryFn: () => call(radioApi.radios),
  });
  return useMemo(
    () => [
      ...commands,
      ...listed,
      ...(plans.data?.plans ?? []).map(({ id, name, model }) => ({
        id,
        label: name,
        words: 'plan',
        group: 'Plans',
        aside: model,
        run: () => router.push(`/plans/${id}`),
      })),
      ...(radios.data?.radios ?? []).map(({ id, called, model }) => ({
        id,
        label: model,
        words: `radio ${called}`,
        group: 'Radios',
        aside: called,
        run: () => router.push('/bench'),
      })),
    ],
    [commands, listed, plans.data, radios.data, router],
  );
}

/** Everything by name: commands and channels of this screen, plans, radios. */
export function Palette({ onClose }: { onClose: () => void }) {
  const [wanted, setWanted] = useState('');
  const all = useFindable();
  const found = useMemo(() => {
    if (wanted.trim() === '') return all;
    return all
      .map((command) => ({ command, score: defaultFilter(command.label, wanted, [command.words ?? '']) }))
      .filter(({ score }) => score > 0)
      .sort((a, b) => b.score - a.score)
      .map(({ command }) => command);
  }, [all, wanted]);
  const drawn = found.slice(0, MOST);
  const groups = [...new Set(drawn.map((command) => command.group))];
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
          <Menu label="Find any command, channel, radio or plan" shouldFilter={false}>
            <Menu.Input
              value={wanted}
              onValueChange={setWanted}
              placeholder="Command, channel, radio or plan"
              className="w-full border-b border-line bg-transparent px-4 py-3 text-[15px] outline-none placeholder:text-soft"
            />
            <Menu.List className="max-h-[52vh] overflow-y-auto p-1.5">
              <Menu.Empty className="px-2 py-4 text-soft">Nothing here has that name.</Menu.Empty>
              {groups.map((group) => (
                <Menu.Group key={group} heading={group} className={heading}>
                  {drawn
                    .filter((command) => command.group === group)
                    .map((command) => (
                      <Menu.Item
                        key={command.id}
                        value={`${command.group} ${command.id}`}
                        onSelect={choose(command.run)}
                        className={item}
                      >
                        {command.label}
                        {command.keys && <Keys keys={command.keys} />}
                        {command.aside && <span className="text-soft">{command.aside}</span>}
                      </Menu.Item>
                    ))}
                </Menu.Group>
              ))}
              {found.length > MOST && (
                <p className="px-2 py-1.5 text-[12px] text-soft">
                  {found.length - MOST} more: type more of the name.
                </p>
              )}
            </Menu.List>
          </Menu>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
