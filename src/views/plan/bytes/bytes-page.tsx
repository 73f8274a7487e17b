'use client';

import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { sentenceOf } from '@/api/ask';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Trouble } from '@/ui';
import { useDesk } from '../desk';
import { PlanHeader } from '../plan-header';

const OWNERS = {
  ours: 'Veridon writes what it names here',
  unit: 'the unit’s own: never written',
  volatile: 'the radio changes it itself',
  unknown: 'unknown: stays as it is',
  checksum: 'the checksum, made anew',
} as const;

const ROW = 16;
const address = (at: number) => `0x${at.toString(16).padStart(4, '0')}`;
const byteAt = (hex: string, at: number) => hex.slice(2 * at, 2 * at + 2);
const letterOf = (hex: string) => {
  const code = parseInt(hex, 16);
  return code >= 0x20 && code < 0x7f ? String.fromCharCode(code) : '·';
};

/** The plan's image for the curious: each byte beside the field that owns it, ours and the unit's told apart, what a write would change marked. */
export function BytesPage() {
  const { hand } = useDesk();
  const { plan, revision } = hand;
  const router = useRouter();
  const [from, setFrom] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const { data, error } = useQuery({
    queryKey: ['image bytes', plan.id, revision, from],
    queryFn: () => call(planApi.imageBytes, { params: { id: plan.id }, query: { from } }),
    placeholderData: (before) => before,
    retry: false,
  });
  const shown = data ? data.after.length / 2 : 0;
  const areaAt = (at: number) => data?.areas.find((area) => at >= area.from && at < area.from + area.bytes);
  const fields = new Map(data?.fields.map(({ at, label }) => [at, label]));
  const at = chosen !== null && data && chosen >= data.from && chosen < data.from + shown ? chosen : null;
  /** To the change behind the chosen byte, or behind what is shown; from the last to the first. */
  const toNextChange = () => {
    const [first] = data!.changes;
    const next = data!.changes.find((one) => one > (at ?? data!.from - 1)) ?? first;
    if (next === undefined) return;
    setChosen(next);
    if (next < data!.from || next >= data!.from + shown) setFrom(Math.max(0, next - (next % ROW) - 4 * ROW));
  };
  return (
    <main className="flex h-full min-w-0 flex-col">
      <PlanHeader onCheck={() => router.push(`/plans/${plan.id}`)} />
      {error && <Trouble className="mx-4">{sentenceOf(error)}</Trouble>}
      {data && (
        <div className="flex min-h-0 flex-1 gap-3 px-4 pb-2.5">
          <nav
            aria-label="Areas"
            className="w-[270px] shrink-0 overflow-y-auto rounded-md border border-line bg-sheet text-[13px]"
          >
            <p className="border-b border-line px-3 py-2 text-soft">
              {data.length.toLocaleString('en')} bytes.{' '}
              {data.changed === 0 ? 'A write would change none.' : `A write would change ${data.changed}.`}
            </p>
            <ol>
              {data.areas.map((area) => (
                <li key={area.from}>
                  <button
                    type="button"
                    aria-current={from <= area.from && area.from < from + shown ? 'true' : undefined}
                    className="flex w-full items-baseline gap-2 px-3 py-1 text-left hover:bg-sunk aria-[current=true]:bg-wash-faint"
                    onClick={() => {
                      setFrom(area.from);
                      setChosen(area.from);
                    }}
                  >
                    <span className="mono text-[12px] text-soft">{address(area.from)}</span>
                    <span className={clsx('min-w-0 flex-1 truncate', area.owner === 'ours' && 'font-medium')}>
                      {area.label}
                    </span>
                    {area.changed > 0 && (
                      <span className="mono shrink-0 text-[12px] font-bold underline decoration-2 underline-offset-2">
                        {area.changed}
                        <span className="sr-only"> would change</span>
                      </span>
                    )}
                  </button>
                </li>
              ))}
            </ol>
          </nav>
          <section
            aria-label="Bytes"
            className="flex min-h-0 min-w-0 flex-1 flex-col rounded-md border border-line bg-sheet"
          >
            <div className="min-h-0 flex-1 overflow-auto p-2">
              <table className="mono border-separate border-spacing-0 text-[12.5px] leading-[21px]">
                <caption className="sr-only">Bytes from {address(data.from)}, sixteen a row</caption>
                <tbody>
                  {Array.from({ length: Math.ceil(shown / ROW) }, (_, row) => (
                    <tr key={row}>
                      <th scope="row" className="pr-4 text-left font-normal text-soft">
                        {address(data.from + row * ROW)}
                      </th>
                      {Array.from({ length: Math.min(ROW, shown - row * ROW) }, (_, column) => {
                        const place = row * ROW + column;
                        const [was, is, mask] = [data.before, data.after, data.ours].map((hex) =>
                          byteAt(hex, place),
                        );
                        const here = data.from + place;
                        return (
                          <td key={column} className={clsx(column === 8 && 'pl-2')}>
                            <button
                              type="button"
                              tabIndex={here === (at ?? data.from) ? 0 : -1}
                              aria-pressed={here === at}
                              aria-label={`${address(here)}: ${is}${was === is ? '' : `, was ${was}`}`}
                              onClick={() => setChosen(here)}
                              onKeyDown={(event) => {
                                const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: ROW, ArrowUp: -ROW }[
                                  event.key
                                ];
                                if (by === undefined) return;
                                event.preventDefault();
                                const next = Math.max(data.from, Math.min(data.from + shown - 1, here + by));
                                setChosen(next);
                                const table = event.currentTarget.closest('table')!;
                                table.querySelectorAll('button')[next - data.from]?.focus();
                              }}
                              className={clsx(
                                'px-[3px]',
                                mask === '00' ? 'text-soft' : 'bg-wash text-ink',
                                was !== is && 'font-bold underline decoration-2 underline-offset-2',
                                here === at && 'shadow-[inset_0_0_0_2px_var(--ink)]',
                              )}
                            >
                              {is}
                            </button>
                          </td>
                        );
                      })}
                      <td aria-hidden className="whitespace-pre pl-4 text-soft">
                        {Array.from({ length: Math.min(ROW, shown - row * ROW) }, (_, column) =>
                          letterOf(byteAt(data.after, row * ROW + column)),
                        ).join('')}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            <div
              role="status"
              className="flex min-h-[58px] shrink-0 items-center gap-4 border-t border-line-strong px-3 py-1.5 text-[13px]"
            >
              {at === null ? (
                <p className="text-soft">
                  <span className="bg-wash px-1 text-ink">a2</span> is ours to write,{' '}
                  <span className="font-bold text-ink underline decoration-2 underline-offset-2">a2</span>{' '}
                  would change. Press a byte for what it belongs to.
                </p>
              ) : (
                <p className="min-w-0 flex-1">
                  <b className="mono">{address(at)}</b> {areaAt(at)?.label}
                  {fields.has(at) && <>: {fields.get(at)}</>}
                  <span className="block text-soft">
                    {byteAt(data.before, at - data.from) === byteAt(data.after, at - data.from)
                      ? `Stands at ${byteAt(data.after, at - data.from)} and stays so.`
                      : `Stands at ${byteAt(data.before, at - data.from)}, would become ${byteAt(data.after, at - data.from)}.`}{' '}
                    {byteAt(data.ours, at - data.from) === '00'
                      ? 'Not one bit of it is Veridon’s to write.'
                      : OWNERS[areaAt(at)?.owner ?? 'ours']}
                  </span>
                </p>
              )}
              <span className="flex-1" />
              <Button size="small" disabled={data.changes.length === 0} onClick={toNextChange}>
                Next change
              </Button>
              <Button
                size="small"
                disabled={data.from === 0}
                onClick={() => setFrom(Math.max(0, data.from - shown))}
              >
                Before
              </Button>
              <Button
                size="small"
                disabled={data.from + shown >= data.length}
                onClick={() => setFrom(data.from + shown)}
              >
                After
              </Button>
            </div>
          </section>
        </div>
      )}
    </main>
  );
}
