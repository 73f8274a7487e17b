'use client';

import { BookOpen } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type FormEvent } from 'react';
import { call, sentenceOf } from '@/api/call';
import { directoryApi, type DirectoryRow } from '@/api/directories';
import { cutText } from '@/core/text';
import { Button, Field, Moment, TickField } from '@/ui';
import { base64Of, pickFile } from '@/views/parts/pick-file';
import type { Search } from './use-search';

/** Longest file that is taken as a directory at once, bytes. */
const LONGEST_FILE = 2_900_000;

/** Of which directories stations come, how many of each are kept and since when, and the account where one is wanted. */
export function DirectoriesMenu({ search }: { search: Search }) {
  const { directories, sources } = search;
  const [said, setSaid] = useState('');
  const changed = () => {
    search.refreshDirectories();
    search.refresh();
  };
  const keep = async (file: File) => {
    setSaid(`${file.name} is being read…`);
    if (file.size > LONGEST_FILE)
      return setSaid(`${file.name} is longer than what is taken at once. Split it.`);
    try {
      const { kept, placeless, refused } = await call(directoryApi.keepOwn, {
        body: { name: cutText(file.name, 60), base64: await base64Of(file) },
      });
      setSaid(
        [
          `${file.name}: ${kept} stations are kept.`,
          placeless > 0 ? `${placeless} have no place and are not.` : '',
          refused.length > 0
            ? `${refused.length} rows are not understood, the first in line ${refused[0]!.line}: ${refused[0]!.reason}`
            : '',
        ]
          .filter(Boolean)
          .join(' '),
      );
      changed();
    } catch (error) {
      setSaid(sentenceOf(error));
    }
  };
  const drop = async (id: string) => {
    try {
      await call(directoryApi.dropOwn, { params: { id } });
      setSaid('');
      changed();
    } catch (error) {
      setSaid(sentenceOf(error));
    }
  };
  const used = directories.filter(({ id }) => sources.includes(id));
  return (
    <Popover.Root>
      <Popover.Trigger
        title={`${used.length} of ${directories.length} are searched`}
        className="inline-flex h-8 items-center gap-1.5 rounded-md border border-line-strong bg-sheet px-2 text-[13px] hover:bg-sunk"
      >
        <BookOpen size={14} aria-hidden /> Directories
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Directories"
          className="z-40 flex w-[22rem] flex-col gap-3 rounded-md border border-line-strong bg-sheet p-3 text-[13px] shadow-lg"
        >
          {directories.map((directory) => (
            <section key={directory.id} aria-label={directory.name} className="flex flex-col gap-1">
              <TickField
                disabled={directory.brokenOff}
                checked={!directory.brokenOff && sources.includes(directory.id)}
                onChange={(on) =>
                  search.setSources(
                    on ? [...sources, directory.id] : sources.filter((id) => id !== directory.id),
                  )
                }
              >
                <b className="font-medium">{directory.name}</b>
              </TickField>
              {directory.brokenOff ? (
                <p className="pl-6 text-soft">
                  Veridon stopped while this file was being imported. No stations were saved. Import the file
                  again.
                </p>
              ) : (
                <p className="pl-6 text-soft">
                  {directory.holds}. {directory.kept} kept
                  {directory.own && directory.asked && (
                    <>
                      , opened <Moment at={directory.asked} />
                    </>
                  )}
                  {!directory.own && directory.asked && (
                    <>
                      , last asked <Moment at={directory.asked} />
                    </>
                  )}
                  .
                </p>
              )}
              {directory.own && (
                <p className="pl-6">
                  <Button
                    size="small"
                    aria-label={`Remove ${directory.name}`}
                    onClick={() => void drop(directory.id)}
                  >
                    Remove
                  </Button>
                </p>
              )}
              {directory.wantsAccount && (
                <AccountForm
                  directory={directory}
                  onDone={() => {
                    search.refreshDirectories();
                    search.askAgain();
                  }}
                />
              )}
            </section>
          ))}
          {said !== '' && (
            <p role="status" className="text-soft">
              {said}
            </p>
          )}
          <div className="flex gap-2">
            <Button size="small" onClick={search.askAgain}>
              Ask them again
            </Button>
            <Button size="small" onClick={() => pickFile((file) => void keep(file))}>
              A file of your own…
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Name and password for a directory that answers nobody without. */
function AccountForm({ directory, onDone }: { directory: DirectoryRow; onDone: () => void }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const send = async (account: { name: string | null; password: string | null }) => {
    setBusy(true);
    setTrouble('');
    try {
      await call(directoryApi.setAccount, { params: { id: directory.id }, body: account });
      setPassword('');
      onDone();
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    setBusy(false);
  };
  if (directory.account !== null)
    return (
      <p className="flex items-center gap-2 pl-6">
        As {directory.account}.
        <Button size="small" disabled={busy} onClick={() => void send({ name: null, password: null })}>
          Forget it
        </Button>
      </p>
    );
  return (
    <form
      aria-label={`Account for the ${directory.name}`}
      className="grid grid-cols-2 gap-2 pl-6"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (name.trim() !== '') void send({ name: name.trim(), password });
      }}
    >
      <Field label="Name" autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} />
      <Field
        label="Password"
        type="password"
        autoComplete="off"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      {trouble && (
        <p role="alert" className="col-span-2 text-stop">
          {trouble}
        </p>
      )}
      <Button size="small" type="submit" className="col-span-2" disabled={busy || name.trim() === ''}>
        {busy ? 'Being tried…' : 'Use this account'}
      </Button>
    </form>
  );
}
