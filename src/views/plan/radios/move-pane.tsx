'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useState, type FormEvent } from 'react';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { fit } from '@/core/fit';
import { placeText, sidesOf, type Model } from '@/core/models';
import { moveToModel } from '@/core/organise';
import { PLAN_NAME_LIMIT, slotText, ZONE_NAME_LIMIT } from '@/core/plan';
import { cutText } from '@/core/text';
import { Button, Choice, Field, Scroll, Trouble, useEscape } from '@/ui';
import { useDesk } from '../desk';

/** Makes a plan for another radio of this one: which band goes to which side, and what goes where, before it is made. */
export function MovePane({ model, onClose }: { model: Model; onClose: () => void }) {
  const { hand } = useDesk();
  const { plan } = hand;
  const router = useRouter();
  const lists = useMemo(() => sidesOf(model), [model]);
  const [name, setName] = useState(() => cutText(`${plan.name}, ${model.name}`, PLAN_NAME_LIMIT));
  const [sides, setSides] = useState<Record<string, number>>(() =>
    lists.length > 1
      ? Object.fromEntries(model.bands.map((band, at) => [band.name, lists[Math.min(at, lists.length - 1)]!]))
      : {},
  );
  const [from, setFrom] = useState('');
  const [bank, setBank] = useState('');
  const slot = from.trim() === '' ? undefined : /^\d{1,4}$/.test(from.trim()) ? Number(from) : null;
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  useEscape(onClose);
  const preview = useMemo(() => {
    const made = moveToModel(plan, model, sides, typeof slot === 'number' ? { from: slot } : {});
    const lost = fit(made.plan, model).leftOut;
    return { ...made, lost: new Set(lost.map(({ id }) => id)) };
  }, [plan, model, sides, slot]);
  const nameOf = new Map(plan.channels.map((channel) => [channel.id, channel.name || 'no name']));
  const goes = preview.plan.channels.length - preview.lost.size;

  const make = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      const made = await call(planApi.movePlan, {
        params: { id: plan.id },
        body: {
          ...{ modelId: model.id, name: name.trim(), sides },
          ...(typeof slot === 'number' && { from: slot }),
          ...(model.zones && bank.trim() && { bank: bank.trim() }),
        },
      });
      router.push(`/plans/${made.plan.id}`);
    } catch (error) {
      setTrouble(sentenceOf(error));
      setBusy(false);
    }
  };
  return (
    <form
      aria-label={`A plan for the ${model.name}`}
      onSubmit={make}
      className="flex flex-col gap-2.5 rounded-md border border-line-strong bg-sheet p-3"
    >
      <h2 className="text-[14px] font-semibold">
        A plan for the {model.maker} {model.name}
      </h2>
      <Field
        label="Name"
        maxLength={PLAN_NAME_LIMIT}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      {lists.length > 1 && (
        <div className="grid grid-cols-2 gap-2">
          {model.bands.map((band) => (
            <Choice
              key={band.name}
              label={band.name}
              value={String(sides[band.name])}
              options={lists.map((list) => [String(list), model.lists[list]!.name] as const)}
              onChange={(list) => setSides({ ...sides, [band.name]: Number(list) })}
            />
          ))}
        </div>
      )}
      <div className="grid grid-cols-2 items-start gap-2">
        <Field
          label="From slot"
          inputMode="numeric"
          placeholder="As they are"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
          problem={slot === null ? 'A number' : undefined}
        />
        {model.zones && (
          <Field
            label={`Into a new ${model.zones.word}`}
            placeholder="None"
            maxLength={ZONE_NAME_LIMIT}
            value={bank}
            onChange={(event) => setBank(event.target.value)}
          />
        )}
      </div>
      <p role="status" className="text-[13px]">
        {goes} of {plan.channels.length} channels go there
        {preview.moved.length > 0 && `, ${preview.moved.length} to other slots`}.
        {preview.lost.size > 0 && ` ${preview.lost.size} go along and are left out of the fit.`}
        {preview.leftOver.length > 0 &&
          ` ${preview.leftOver.length} find no room and wait there as left over.`}
      </p>
      {(preview.moved.length > 0 || preview.leftOver.length > 0) && (
        <Scroll label="What goes where" className="max-h-48 border-y border-line py-1 text-[13px]">
          <ol>
            {preview.leftOver.map((id) => (
              <li key={id} className="text-soft">
                {nameOf.get(id)}: left over
              </li>
            ))}
            {preview.moved.map(({ id, from, to }) => (
              <li key={id} className="flex items-baseline gap-2">
                <span className="mono text-[12px]">{placeText(model, to)}</span>
                <span className="min-w-0 flex-1 truncate">{nameOf.get(id)}</span>
                <span className="mono text-[12px] text-soft">was {slotText(from.slot)}</span>
              </li>
            ))}
          </ol>
        </Scroll>
      )}
      {trouble && <Trouble>{trouble}</Trouble>}
      <div className="flex gap-2">
        <Button
          kind="strong"
          type="submit"
          className="flex-1"
          disabled={busy || name.trim() === '' || slot === null}
        >
          {busy ? 'Being made…' : 'Make the plan'}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </form>
  );
}
