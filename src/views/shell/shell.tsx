'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useEffect, useState, type ReactNode } from 'react';
import { CommandsProvider, isTyping, useCommands, lazily } from '@/ui';
import { Rail } from './rail';
import { setTheme, type Theme } from './theme';

const Palette = lazily(() => import('./palette').then((module) => module.Palette), { takesKeys: true });
const OpenDropped = lazily(() => import('../plans/open-image').then((module) => module.OpenDropped));
const Shortcuts = lazily(() => import('./shortcuts').then((module) => module.Shortcuts), { takesKeys: true });

/** Files that are dropped on the window, on whichever screen: images of radios, and the files of their cards. */
function Drop() {
  const [over, setOver] = useState(false);
  const [files, setFiles] = useState<File[] | null>(null);
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const drag = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => event.relatedTarget === null && setOver(false);
    const drop = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setOver(false);
      setFiles([...event.dataTransfer!.files]);
    };
    window.addEventListener('dragover', drag);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', drag);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, []);
  return (
    <>
      {over && (
        <div className="pointer-events-none fixed inset-3 z-50 grid place-items-center rounded-lg border-2 border-dashed border-ink bg-sheet/90 text-[17px] font-semibold">
          Let go to open it as a plan
        </div>
      )}
      {files && <OpenDropped files={files} />}
    </>
  );
}

function Everywhere() {
  const router = useRouter();
  const [open, setOpen] = useState<'palette' | 'shortcuts' | null>(null);
  const theme = (value: Theme) => () => setTheme(value);
  useCommands('everywhere', [
    {
      id: 'palette',
      label: 'Find any command, channel, radio or plan',
      group: 'Everywhere',
      keys: 'Ctrl K',
      run: () => setOpen('palette'),
    },
    {
      id: 'shortcuts',
      label: 'Show the shortcuts of this screen',
      group: 'Everywhere',
      keys: '?',
      run: () => setOpen('shortcuts'),
    },
    { id: 'go-plans', label: 'Go to Plans', group: 'Everywhere', run: () => router.push('/') },
    { id: 'go-find', label: 'Go to Find', group: 'Everywhere', run: () => router.push('/find') },
    { id: 'go-people', label: 'Go to People', group: 'Everywhere', run: () => router.push('/people') },
    { id: 'go-bench', label: 'Go to the Bench', group: 'Everywhere', run: () => router.push('/bench') },
    { id: 'go-data', label: 'Go to Data and backups', group: 'Everywhere', run: () => router.push('/data') },
    { id: 'theme-light', label: 'Light theme', group: 'Appearance', run: theme('light') },
    { id: 'theme-dark', label: 'Dark theme', group: 'Appearance', run: theme('dark') },
    { id: 'theme-system', label: 'Theme as the system has it', group: 'Appearance', run: theme('system') },
  ]);
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (event.key === '?' && !isTyping(event)) setOpen('shortcuts');
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
  return (
    <>
      {open === 'palette' && <Palette onClose={() => setOpen(null)} />}
      {open === 'shortcuts' && <Shortcuts onClose={() => setOpen(null)} />}
    </>
  );
}

/** The frame around every screen: rail, neatline, and what can be called up everywhere. */
export function Shell({ children, readOnly }: { children: ReactNode; readOnly: string | null }) {
  const [client] = useState(() => new QueryClient());
  return (
    <QueryClientProvider client={client}>
      <CommandsProvider>
        <div className="flex h-dvh print:block print:h-auto">
          <Rail />
          <div className="flex min-w-0 flex-1 flex-col print:block">
            {readOnly !== null && (
              <p
                role="alert"
                className="border-b border-line-strong bg-sheet px-8 py-1.5 text-[13px] text-stop print:hidden"
              >
                Read-only. {readOnly}
              </p>
            )}
            <div className="min-h-0 flex-1">{children}</div>
          </div>
        </div>
        <Everywhere />
        <Drop />
      </CommandsProvider>
    </QueryClientProvider>
  );
}
