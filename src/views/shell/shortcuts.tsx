'use client';

import { Dialog } from 'radix-ui';
import { Button, Keys, useAllCommands } from '@/ui';

/** The shortcuts of this screen. */
export function Shortcuts({ onClose }: { onClose: () => void }) {
  const commands = useAllCommands().filter((command) => command.keys);
  const groups = [...new Set(commands.map((command) => command.group))];
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-50 max-h-[86vh] w-[min(760px,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-lg border border-line-strong bg-sheet p-5 shadow-xl"
        >
          <div className="mb-3 flex items-center justify-between">
            <Dialog.Title className="text-[17px] font-semibold">Shortcuts of this screen</Dialog.Title>
            <Dialog.Close asChild>
              <Button kind="quiet">Close</Button>
            </Dialog.Close>
          </div>
          <div className="columns-2 gap-8">
            {groups.map((group) => (
              <section key={group} className="mb-4 break-inside-avoid">
                <h3 className="mb-1 text-[12px] text-soft">{group}</h3>
                <dl>
                  {commands
                    .filter((command) => command.group === group)
                    .map((command) => (
                      <div
                        key={command.id}
                        className="flex justify-between gap-4 border-b border-line py-1 text-[13px]"
                      >
                        <dt>{command.label}</dt>
                        <dd>
                          <Keys keys={command.keys!} />
                        </dd>
                      </div>
                    ))}
                </dl>
              </section>
            ))}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
