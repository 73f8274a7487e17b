'use client';

import { useMemo, useState } from 'react';
import { channelOf, type Candidate } from '@/core/directory';
import { fitNames } from '@/core/fit';
import { modelById, sidesOf } from '@/core/models';
import {
  abbreviationsOf,
  makeId,
  PLACEMENTS,
  PLACEMENT_NAMES,
  previewPlacing,
  type Placement,
  type Plan,
  slotText,
  type Edit,
} from '@/core/plan';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Choice, Field, Scroll, Trouble } from '@/ui';

interface Props {
  plan: Plan;
  revision: number;
  chosen: readonly Candidate[];
  /** `left` are those that found no slot. */
  onPlaced: (answer: { label: string }, left: Candidate[]) => void;
}

/** Where the chosen entries will go: worked out live, before anything is changed. */
export function PlacePanel({ plan, revision, chosen, onPlaced }: Props) {
  const model = modelById(plan.modelId)!;
  const [placement, setPlacement] = useState<Placement>('next-free');
  const [list, setList] = useState(0);
  const [at, setAt] = useState(String(model.slots.first));
  const [template, setTemplate] = useState('{name}');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  const slot = /^\d{1,4}$/.test(at.trim()) ? Number(at) : null;
  const preview = useMemo(
    () =>
      previewPlacing(plan.channels, chosen.length, placement, slot ?? model.slots.first, model.slots, list),
    [plan.channels, chosen.length, placement, slot, model, list],
  );
  const made = useMemo(
    () =>
      chosen.map(({ entry }) =>
        channelOf(entry, 'relay-register', template, plan.owner.region, model.powers[0]!.milliwatts),
      ),
    [chosen, template, plan.owner.region, model],
  );
  const wrong = made.find((channel) => !channel.ok);
  const nameOf = new Map(plan.channels.map((channel) => [channel.id, channel.name]));
  const onRadio = useMemo(() => {
    const named = made.map((channel) => ({
      list,
      ...(channel.ok ? channel.value : { name: '', fitted: {} }),
    }));
    return fitNames([...plan.channels, ...named], model, abbreviationsOf(plan)).slice(plan.channels.length);
  }, [made, plan, model, list]);
  const name = (index: number) => {
    const channel = made[index];
    return channel?.ok ? channel.value.name : '';
  };

  const place = async () => {
    setBusy(true);
    setTrouble('');
    const channels = made.flatMap((channel) =>
      channel.ok ? [{ ...channel.value, id: makeId('ch', crypto.getRandomValues(new Uint8Array(12))) }] : [],
    );
    const taken = preview.assigned.map(({ index }) => channels[index]!);
    const edit: Edit = {
      name: 'place',
      channels: taken,
      placement,
      ...(list > 0 && { list }),
      at: slot ?? model.slots.first,
      range: model.slots,
      expect: preview.assigned.map((one) => one.slot),
    };
    try {
      const answer = await call(planApi.edit, {
        params: { id: plan.id },
        body: {
          base: revision,
          edit,
        },
      });
      onPlaced(
        answer,
        preview.leftOver.map((index) => chosen[index]!),
      );
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    setBusy(false);
  };

  const n = preview.assigned.length;
  const sides = sidesOf(model);
  return (
    <section
      aria-label="Place"
      className="flex min-h-0 flex-1 flex-col rounded-md border border-line bg-sheet"
    >
      <div className="grid grid-cols-[1fr_4.5rem] gap-2 border-b border-line p-3">
        {sides.length > 1 && (
          <Choice
            className="col-span-2"
            label="On the side"
            value={String(list)}
            options={sides.map((side) => [String(side), model.lists[side]!.name] as const)}
            onChange={(side) => setList(Number(side))}
          />
        )}
        <Choice
          label="Place in"
          value={placement}
          options={PLACEMENTS.map((key) => [key, PLACEMENT_NAMES[key]] as const)}
          onChange={setPlacement}
        />
        <Field
          id="at-slot"
          label="From slot"
          inputMode="numeric"
          value={at}
          onChange={(event) => setAt(event.target.value)}
          problem={slot === null ? 'A number' : undefined}
        />
        <Field
          id="template"
          className="col-span-2"
          label="Name from"
          value={template}
          onChange={(event) => setTemplate(event.target.value)}
          problem={wrong && !wrong.ok ? wrong.reason : undefined}
          title="Fields: {name} {call} {city} {island} {band} {mode} {output}, with a width as in {city:6}"
        />
      </div>
      <Scroll label="What goes where" className="flex-1 px-3 py-2 text-[13px]">
        {chosen.length === 0 ? (
          <p className="text-soft">
            Choose stations in the list. Which slots they take is shown here before anything is changed.
          </p>
        ) : (
          <ol aria-label="Preview of the slots">
            {preview.assigned.map(({ index, slot: to }) => (
              <li key={index} className="flex items-baseline gap-2 py-0.5">
                <span className="mono w-8 text-soft">{slotText(to)}</span>
                <span className="min-w-0 flex-1 truncate">{name(index)}</span>
                <span className="mono text-[12px] text-soft">{onRadio[index]!.text}</span>
              </li>
            ))}
          </ol>
        )}
        {preview.pushed.length > 0 && (
          <p className="border-t border-line pt-2 text-soft">
            Moved down:{' '}
            {preview.pushed.map((move) => `${nameOf.get(move.id)} ${move.from} → ${move.to}`).join(', ')}.
          </p>
        )}
        {preview.overwritten.length > 0 && (
          <p className="border-t border-line pt-2 text-soft">
            Replaced: {preview.overwritten.map((id) => nameOf.get(id)).join(', ')}.
          </p>
        )}
        {preview.leftOver.length > 0 && (
          <p className="border-t border-line pt-2 text-caution">
            No slot left for {preview.leftOver.map(name).join(', ')}: they stay here, chosen.
          </p>
        )}
        {trouble && <Trouble className="mt-2">{trouble}</Trouble>}
      </Scroll>
      <div className="border-t border-line p-3">
        <Button
          kind="strong"
          className="w-full"
          disabled={n === 0 || busy || wrong !== undefined || slot === null}
          onClick={place}
        >
          {n === 0 ? 'Place' : n === 1 ? 'Place 1 channel' : `Place ${n} channels`}
        </Button>
      </div>
    </section>
  );
}
