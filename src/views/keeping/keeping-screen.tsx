'use client';

import { useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '@/api/call';
import { keepingApi } from '@/api/keeping';
import { radioApi } from '@/api/radios';
import type { Job } from '@/core/bench';
import { Button, Field, Moment, TickField, Trouble, useCommands } from '@/ui';

const sizeOf = (bytes: number): string =>
  bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : bytes >= 1e5
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${Math.ceil(bytes / 1000)} kB`;

const BY = { itself: 'by itself, each day', request: 'asked for' } as const;

const DID: Record<Job['kind'], string> = {
  read: 'read',
  write: 'written',
  restore: 'restored',
  resume: 'gone on with',
  people: 'given people',
};

/** The last transfers between Veridon and radios, whatever came of them. */
function Transfers() {
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: () => call(radioApi.jobs), retry: false });
  const all = jobs.data?.jobs ?? [];
  return (
    <section aria-label="Transfers" className="rounded-md border border-line bg-sheet">
      <h2 className="border-b border-line px-3 py-1.5 text-[13px]">
        <b className="font-semibold">Transfers</b> <span className="text-soft">the last twenty</span>
      </h2>
      {all.length === 0 && (
        <p className="px-3 py-2 text-[13px] text-soft">
          None yet: no radio has been read or written. Plug one in and open the Bench.
        </p>
      )}
      <ul>
        {all.map(({ id, startedAt, called, kind, state, message }) => (
          <li
            key={id}
            className="flex items-baseline gap-3 border-b border-line px-3 py-1 text-[13px] last:border-0"
          >
            <span className="w-44 shrink-0 text-soft">
              <Moment at={startedAt} />
            </span>
            <span className="mono w-24 shrink-0">{called}</span>
            <span className="w-24 shrink-0">{DID[kind]}</span>
            <span className={state === 'failed' || state === 'stopped' ? 'text-stop' : 'text-soft'}>
              {message}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is kept as a whole: where it lies, how large it is, what is in it, whether it is sound, and its backups. */
export function KeepingScreen() {
  const client = useQueryClient();
  const [passphrase, setPassphrase] = useState('');
  const [encrypt, setEncrypt] = useState(false);
  const seen = useQuery({ queryKey: ['keeping'], queryFn: () => call(keepingApi.keeping), retry: false });
  const make = useMutation({
    mutationFn: () =>
      call(keepingApi.makeBackup, {
        body: passphrase.trim() === '' ? {} : { passphrase: passphrase.trim(), encrypt },
      }),
    onSettled: () => client.invalidateQueries({ queryKey: ['keeping'] }),
  });
  useCommands('keeping', [
    { id: 'back-up', label: 'Back up everything now', group: 'Data', run: () => make.mutate() },
  ]);
  const kept = seen.data;
  return (
    <main className="flex h-full min-w-0 flex-col gap-4 overflow-y-auto px-4 pb-3 pt-3">
      <h1 className="text-[21px] font-semibold leading-8">Data</h1>
      {seen.error && <Trouble>{seen.error.message}</Trouble>}
      {kept && (
        <div className="flex gap-4 max-lg:flex-col">
          <section aria-label="What is kept" className="w-[380px] shrink-0 max-lg:w-full">
            <div className="rounded-md border border-line bg-sheet">
              <h2 className="border-b border-line px-3 py-1.5 text-[13px] font-semibold">What is kept</h2>
              <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 px-3 py-2 text-[13px]">
                {kept.holds.map(({ what, count }) => (
                  <div key={what} className="contents">
                    <dt className="text-soft">{what}</dt>
                    <dd className="mono text-right">{count.toLocaleString('en')}</dd>
                  </div>
                ))}
                <dt className="border-t border-line pt-1.5 text-soft">on the disk</dt>
                <dd className="mono border-t border-line pt-1.5 text-right">{sizeOf(kept.bytes)}</dd>
                {kept.free !== null && (
                  <>
                    <dt className="text-soft">free beside it</dt>
                    <dd className="mono text-right">{sizeOf(kept.free)}</dd>
                  </>
                )}
              </dl>
              <p className="border-t border-line px-3 py-2 text-[12.5px] text-soft">
                {kept.kind === 'pglite'
                  ? 'All of it lies in '
                  : 'On the database server that is named; beside it in '}
                <code className="mono break-all text-ink">{kept.folder}</code>.
              </p>
            </div>
            {kept.damaged.length === 0 ? (
              <p role="status" className="pt-2 text-[13px]">
                Every sealed copy is, bit for bit, what was sealed.
              </p>
            ) : (
              <Trouble className="mt-2">
                {kept.damaged.length === 1 ? 'A sealed copy is' : `${kept.damaged.length} sealed copies are`}{' '}
                not what was sealed: the disk may be failing. Take a backup away from here, and restore from
                one that is older. <span className="mono">{kept.damaged.slice(0, 4).join(', ')}</span>
              </Trouble>
            )}
          </section>
          <section aria-label="Backups" className="min-w-0 flex-1">
            <div className="rounded-md border border-line bg-sheet">
              <div className="flex items-center gap-3 border-b border-line px-3 py-1.5">
                <h2 className="flex-1 text-[13px]">
                  <b className="font-semibold">Backups</b>{' '}
                  <span className="text-soft">
                    everything as one file; the last seven of each kind are kept
                  </span>
                </h2>
                <Button size="small" disabled={make.isPending} onClick={() => make.mutate()}>
                  {make.isPending ? 'Is being made…' : 'Back up now'}
                </Button>
              </div>
              <div className="flex items-start gap-3 border-b border-line px-3 py-2 text-[12.5px] text-soft">
                <Field
                  label="Passphrase (optional)"
                  className="w-56"
                  type="password"
                  autoComplete="new-password"
                  maxLength={200}
                  value={passphrase}
                  onChange={(event) => setPassphrase(event.target.value)}
                />
                <div className="flex flex-col gap-1 pb-1">
                  <p>
                    A passphrase lets you check, on any computer, that the backup was not changed. Veridon
                    does not store the passphrase.
                  </p>
                  <TickField
                    checked={encrypt && passphrase.trim() !== ''}
                    disabled={passphrase.trim() === ''}
                    onChange={setEncrypt}
                  >
                    Encrypt the backup with it. Without the passphrase nobody can restore it.
                  </TickField>
                </div>
              </div>
              {make.error && <Trouble className="m-2">{make.error.message}</Trouble>}
              {kept.backups.length === 0 && (
                <p className="px-3 py-3 text-[13px] text-soft">
                  None yet. One is made each day while Veridon runs; make the first now, and carry it to
                  another disk.
                </p>
              )}
              <ul>
                {kept.backups.map(({ name, at, bytes, by }) => (
                  <li
                    key={name}
                    className="flex items-center gap-3 border-b border-line px-3 py-1 text-[13px] last:border-0"
                  >
                    <span className="w-44 font-medium">
                      <Moment at={at} />
                    </span>
                    <span className="flex-1 text-soft">
                      {BY[by]}
                      {name.endsWith('.encrypted') && ', encrypted'}
                    </span>
                    <span className="mono text-soft">{sizeOf(bytes)}</span>
                    <a
                      className="rounded-md px-2 py-1 font-medium hover:bg-sunk"
                      aria-label={`Save the backup ${name}`}
                      href={`/api/backups/${name}`}
                      download
                    >
                      Save
                    </a>
                  </li>
                ))}
              </ul>
            </div>
            <p className="pt-2 text-[12.5px] text-soft">
              To restore one: <code className="mono text-ink">npm run restore -- FILE</code> with
              VERIDON_DATA_DIR naming an empty directory, and VERIDON_PASSPHRASE the passphrase if it has one;
              then start Veridon there. Passwords of directories are not in a backup; give them again.
            </p>
          </section>
        </div>
      )}
      <Transfers />
    </main>
  );
}
