'use client';

import { useMemo, useState } from 'react';
import {
  channelOf,
  DOUBLE_WAYS,
  placeStations,
  without,
  type Candidate,
  type DoubleWay,
  type ToPlace,
} from '@/core/directory';
import { fitNames } from '@/core/fit';
import { formatAccess, type Point } from '@/core/radio';
import { modelOfPlan, sidesOf } from '@/core/models';
import {
  abbreviationsOf,
  makeId,
  PLACEMENTS,
  PLACEMENT_NAMES,
  previewPlacing,
  type Placement,
  type Plan,
  slotText,
} from '@/core/plan';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Choice, Field, Scroll, TickField, Trouble } from '@/ui';
import { RoomOffer, useRoom, type Room } from './room-offer';

interface Props {
  plan: Plan;
  revision: number;
  chosen: readonly Candidate[];
  /** All that the search knows. */
  known: readonly Candidate[];
  /** Around which place was searched; null along a route. */
  searched: Point | null;
  /** How many days the route has, each of which can become a bank; 0 where there are none. */
  days: number;
  dayOf: (candidate: Candidate) => readonly number[];
  onPlaced: (answer: { label: string }) => void;
}

const WAY_NAMES: Record<DoubleWay, string> = {
  both: 'Place it too',
  'take over': 'Take over its access',
  leave: 'Leave it',
};

/** What opens the channel of which the plan has the same pair. */
const accessOf = (plan: Plan, { present, entry }: Candidate): string => {
  const there = plan.channels.find(({ slot, rx }) => slot === present!.slot && rx === entry.output);
  return (there && formatAccess(there.access)) || 'open';
};

/** Where the chosen entries will go: worked out live, before anything is changed. */
export function PlacePanel({
  plan: whole,
  revision,
  chosen: all,
  known,
  searched,
  days,
  dayOf,
  onPlaced,
}: Props) {
  const model = modelOfPlan(whole)!;
  const [placement, setPlacement] = useState<Placement>('next-free');
  const [list, setList] = useState(0);
  const [at, setAt] = useState(String(model.slots.first));
  const [template, setTemplate] = useState('{name}');
  const [room, setRoom] = useState<Room>('none');
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  const [ways, setWays] = useState<Readonly<Record<string, DoubleWay>>>({});
  const [banks, setBanks] = useState(true);
  /** Those of which the plan has the pair of frequencies already, with other access. */
  const doubles = useMemo(() => all.filter(({ present }) => present?.near), [all]);
  const wayOf = (candidate: Candidate): DoubleWay =>
    candidate.present?.near ? (ways[candidate.entry.ref] ?? 'both') : 'both';
  const chosen = useMemo(
    () => all.filter((one) => !one.present?.near || (ways[one.entry.ref] ?? 'both') === 'both'),
    [all, ways],
  );

  const slot = /^\d{1,4}$/.test(at.trim()) ? Number(at) : null;
  const short = useMemo(
    () =>
      previewPlacing(whole.channels, chosen.length, placement, slot ?? model.slots.first, model.slots, list)
        .leftOver.length,
    [whole.channels, chosen.length, placement, slot, model, list],
  );
  const roomOf = useRoom(whole, list, known, searched);
  const going = short > 0 ? roomOf(room, short) : [];
  const gone = new Set(going.map(({ id }) => id));
  const plan = gone.size > 0 ? without(whole, gone) : whole;
  const preview = useMemo(
    () =>
      previewPlacing(plan.channels, chosen.length, placement, slot ?? model.slots.first, model.slots, list),
    [plan.channels, chosen.length, placement, slot, model, list],
  );
  const made = useMemo(
    () =>
      chosen.map(({ entry, source }) =>
        channelOf(entry, source, template, plan.owner.region, model.powers[0]!.milliwatts),
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
    const random = () => crypto.getRandomValues(new Uint8Array(12));
    const stations = all.flatMap((candidate): ToPlace[] => {
      const { entry, source, present } = candidate;
      const channel = channelOf(entry, source, template, plan.owner.region, model.powers[0]!.milliwatts);
      if (!channel.ok) return [];
      const there = present?.near
        ? plan.channels.find((one) => one.slot === present.slot && one.rx === entry.output)
        : undefined;
      return [
        {
          channel: { ...channel.value, id: makeId('ch', random()) },
          days: dayOf(candidate),
          double: there ? { id: there.id, way: wayOf(candidate) } : null,
        },
      ];
    });
    const zones =
      days > 0 && banks && model.zones
        ? Array.from({ length: days }, (_, day) => ({ id: makeId('zn', random()), name: `Day ${day + 1}` }))
        : [];
    const { edit } = placeStations(
      whole,
      stations,
      { placement, at: slot ?? model.slots.first, range: model.slots, list },
      zones,
      gone,
    );
    if (!edit) {
      setBusy(false);
      return setTrouble('Nothing of it is to be placed.');
    }
    try {
      const answer = await call(planApi.edit, {
        params: { id: plan.id },
        body: {
          base: revision,
          edit,
        },
      });
      onPlaced(answer);
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
    setBusy(false);
  };

  const n = preview.assigned.length;
  const takes = doubles.filter((one) => wayOf(one) === 'take over').length;
  const something = chosen.length + takes;
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
      {days > 0 && model.zones && (
        <TickField className="border-b border-line px-3 py-2 text-[13px]" checked={banks} onChange={setBanks}>
          a {model.zones.word} for each of the {days} days
        </TickField>
      )}
      <Scroll label="What goes where" className="flex-1 px-3 py-2 text-[13px]">
        {doubles.length > 0 && (
          <ul aria-label="Nearly in the plan" className="border-b border-line pb-2">
            {doubles.map((one) => (
              <li key={one.entry.ref} className="flex items-center gap-2 py-0.5">
                <span className="min-w-0 flex-1">
                  <span className="block truncate">{one.entry.site}</span>
                  <span className="block truncate text-[12px] text-soft">
                    slot {one.present!.slot} has the pair with {accessOf(plan, one)}, this one{' '}
                    {formatAccess(one.entry.access) || 'open'}
                  </span>
                </span>
                <Choice
                  label={`What is done with ${one.entry.site}`}
                  hideLabel
                  className="w-40"
                  value={wayOf(one)}
                  options={DOUBLE_WAYS.map((way) => [way, WAY_NAMES[way]] as const)}
                  onChange={(way) => setWays({ ...ways, [one.entry.ref]: way })}
                />
              </li>
            ))}
          </ul>
        )}
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
            {preview.leftOver.length} find no slot and wait left over in the plan:{' '}
            {preview.leftOver.slice(0, 8).map(name).join(', ')}
            {preview.leftOver.length > 8 && ' …'}.
          </p>
        )}
        {short > 0 && <RoomOffer room={room} onRoom={setRoom} going={going} n={short} />}
        {trouble && <Trouble className="mt-2">{trouble}</Trouble>}
      </Scroll>
      <div className="border-t border-line p-3">
        <Button
          kind="strong"
          className="w-full"
          disabled={something === 0 || busy || wrong !== undefined || slot === null}
          onClick={place}
        >
          {n > 0
            ? n === 1
              ? 'Place 1 channel'
              : `Place ${n} channels`
            : takes > 0
              ? `Take over ${takes}`
              : 'Place'}
        </Button>
      </div>
    </section>
  );
}
