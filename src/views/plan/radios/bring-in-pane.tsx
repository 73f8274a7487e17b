'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { sentenceOf } from '@/api/ask';
import { call } from '@/api/call';
import { planApi } from '@/api/plans';
import { sidesOf } from '@/core/models';
import { bringIn } from '@/core/organise';
import { slotText } from '@/core/plan';
import { Button, Choice, Field, Scroll, TickField, Trouble } from '@/ui';
import { useDesk } from '../desk';
import { newId } from '../organise/use-organise';

/** Puts the channels of another plan into this one, as far as its radio can hold them; what stays behind is named before. */
export function BringInPane() {
  const { hand } = useDesk();
  const { plan, model, store } = hand;
  const [from, setFrom] = useState('none');
  const [clear, setClear] = useState(false);
  const [slot, setSlot] = useState(String(model.slots.first));
  const [said, setSaid] = useState('');
  const plans = useQuery({
    queryKey: ['plans to bring in'],
    queryFn: () => call(planApi.planNames),
  });
  const source = useQuery({
    queryKey: ['plan', from],
    queryFn: () =>
      call(planApi.plan, { params: { id: plans.data!.plans.find(({ id }) => id === from)!.id } }),
    enabled: from !== 'none' && plans.data !== undefined,
    retry: false,
  });
  const first = /^\d{1,4}$/.test(slot.trim()) ? Number(slot) : null;
  const preview = useMemo(() => {
    const other = source.data?.plan;
    if (!other || first === null) return null;
    const lists = sidesOf(model);
    const sides =
      lists.length > 1
        ? Object.fromEntries(
            model.bands.map(({ name }, at) => [name, lists[Math.min(at, lists.length - 1)]!]),
          )
        : {};
    return bringIn(plan, other, model, { clear, from: first, sides }, newId);
  }, [source.data, plan, model, clear, first]);
  const others = (plans.data?.plans ?? []).filter(({ id, trouble }) => id !== plan.id && !trouble);
  const run = () => {
    if (!preview?.edit) return;
    const result = store.apply(preview.edit);
    if (!result.ok) return setSaid(result.reason);
    setSaid(`Brought in ${preview.goes.length}. Ctrl Z takes it back.`);
    setFrom('none');
  };
  if (others.length === 0) return null;
  return (
    <section
      aria-label="Bring in"
      className="flex flex-col gap-2 rounded-md border border-line bg-sheet px-3 py-2 text-[13px]"
    >
      <h3 className="font-semibold">Bring in from another plan</h3>
      <Choice
        label="The plan"
        value={from}
        options={[['none', 'None chosen'], ...others.map(({ id, name }) => [id as string, name] as const)]}
        onChange={(id) => {
          setSaid('');
          setFrom(id);
        }}
      />
      {source.error && <Trouble>{sentenceOf(source.error)}</Trouble>}
      {from !== 'none' && (
        <>
          <div className="grid grid-cols-[6rem_1fr] items-end gap-2">
            <Field
              id="bring-in-slot"
              label="From slot"
              inputMode="numeric"
              value={slot}
              onChange={(event) => setSlot(event.target.value)}
              problem={first === null ? 'A number' : undefined}
            />
            <TickField className="pb-1.5" checked={clear} onChange={setClear}>
              take this plan’s own out first
            </TickField>
          </div>
          {preview && (
            <>
              <p role="status">
                {preview.goes.length} come in
                {preview.comes.length > 0 && ` with ${preview.comes.join(', ')}`}
                {preview.left.length > 0 && `, ${preview.left.length} stay behind`}. {preview.stays.join(' ')}
              </p>
              <Scroll label="What comes in" className="max-h-40 border-y border-line py-1">
                <ol>
                  {preview.left.map(({ name, because }, at) => (
                    <li key={`left ${at}`} className="flex justify-between gap-2">
                      <span className="truncate">{name || 'no name'}</span>
                      <span className="shrink-0 text-soft">{because}</span>
                    </li>
                  ))}
                  {preview.goes.map(({ name, list, slot: to }) => (
                    <li key={`${list} ${to}`} className="flex gap-2">
                      <span className="mono text-soft">{slotText(to)}</span>
                      <span className="truncate">{name || 'no name'}</span>
                    </li>
                  ))}
                </ol>
              </Scroll>
              <Button kind="strong" disabled={preview.goes.length === 0} onClick={run}>
                Bring {preview.goes.length} in
              </Button>
            </>
          )}
        </>
      )}
      {said && <p role="status">{said}</p>}
    </section>
  );
}
