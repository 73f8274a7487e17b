'use client';

import { Ear, ListFilter } from 'lucide-react';
import { Popover } from 'radix-ui';
import { memo, useState } from 'react';
import type { Model } from '@/core/models';
import { EVERYTHING, turned, turnedThrough, type Turning } from '@/core/organise/turning';
import { countOf, KINDS, type Channel, type ChannelId, type Plan, type Zone } from '@/core/plan';
import { Choice } from '@/ui';
import { RadioFace } from '@/views/parts';
import type { ShownPlan } from './use-plan';

interface FaceProps {
  channel: Channel | undefined;
  plan: Plan;
  shown: ShownPlan;
  onSelect: (id: ChannelId) => void;
  /** Keeps that the channel was heard just now. */
  onHeard: () => void;
}

/**
 * The radio's face for the channel at work; its knob turns through the side, a bank of it, or what a scan takes. Drawn for what it is
 * handed alone, which may come a moment after the table: typing never waits for it.
 */
export const PlanFace = memo(function PlanFace({ channel, plan, shown, onSelect, onHeard }: FaceProps) {
  const { model } = shown;
  const [turning, setTurning] = useState<Turning>(EVERYTHING);
  const fittedOf = (id: ChannelId | undefined) => (id && shown.views.of.get(id)?.fitted) ?? null;
  const { channels } = shown.views.plan ?? { channels: [] };
  /** What the other side stands at: its first channel. */
  const other =
    channel && model.lists.length > 1
      ? channels.find(({ list }) => model.lists[list]?.holds === 'channels' && list !== channel.list)
      : undefined;
  const zone =
    plan.zones.find(({ id }) => id === turning.zone) ??
    plan.zones.find(({ members }) => channel && members.includes(channel.id));
  const through = (by: Turning) =>
    shown.views.plan && channel
      ? turnedThrough(shown.views.plan, channel.list, by, (id) => fittedOf(id) !== null)
      : [];
  const choose = (next: Turning) => {
    setTurning(next);
    const members = through(next);
    if (channel && members.length > 0 && !members.some(({ id }) => id === channel.id))
      onSelect(members[0]!.id);
  };
  return (
    <RadioFace
      channel={fittedOf(channel?.id)}
      model={model}
      region={plan.owner.region}
      settings={plan.settings[model.id]}
      other={fittedOf(other?.id)}
      bank={model.zones ? (zone?.name ?? '') : ''}
      talkgroup={plan.talkgroups.find(({ id }) => id === channel?.talkgroup)?.name}
      position={positionOf(channel, zone, model)}
      onTurn={(by) => {
        const next = turned(through(turning), channel?.id ?? null, by);
        if (next) onSelect(next.id);
      }}
      besideTurn={
        <>
          <button
            type="button"
            disabled={!channel}
            aria-label="Heard just now"
            title="Heard just now"
            className="grid size-6 place-items-center rounded border border-line-strong text-soft hover:text-ink disabled:opacity-40"
            onClick={onHeard}
          >
            <Ear size={12} aria-hidden />
          </button>
          <TurningMenu
            plan={plan}
            model={model}
            turning={turning}
            onChoose={choose}
            count={() => through(turning).length}
          />
        </>
      }
      nothing={
        !channel
          ? 'A new channel: type its frequency.'
          : shown.views.plan === null
            ? 'Being worked out…'
            : 'This channel is left out of the fit.'
      }
    />
  );
});

/** The position of the knob at which a channel stands in a zone; null where none does. */
function positionOf(channel: Channel | undefined, zone: Zone | undefined, { zones }: Model): number | null {
  if (!zones?.knob || !channel || !zone) return null;
  const places = zone.knob ? zone.knob.map((place) => place.channel) : zone.members;
  const at = places.slice(0, zones.knob).indexOf(channel.id);
  return at < 0 ? null : at + 1;
}

/** What turning goes through: a bank or all, every channel or what a scan takes. */
function TurningMenu({
  plan,
  model,
  turning,
  onChoose,
  count,
}: {
  plan: Plan;
  model: Model;
  turning: Turning;
  onChoose: (turning: Turning) => void;
  /** Asked for while the menu is open. */
  count: () => number;
}) {
  const narrowed = turning.zone !== null || turning.through !== 'every';
  const word = model.zones?.word ?? 'zone';
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label="What turning goes through"
        className="grid size-6 place-items-center rounded border border-line-strong text-soft hover:text-ink data-[narrowed=true]:border-ink data-[narrowed=true]:text-ink"
        data-narrowed={narrowed}
      >
        <ListFilter size={12} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="What turning goes through"
          className="z-40 flex w-56 flex-col gap-2 rounded-md border border-line-strong bg-sheet p-3 shadow-lg"
        >
          {model.zones && plan.zones.length > 0 && (
            <Choice
              label={`Turned to the ${word}`}
              value={turning.zone ?? 'all'}
              options={[
                ['all', 'None: the whole list'],
                ...plan.zones.map(({ id, name }) => [id as string, name] as const),
              ]}
              onChange={(id) =>
                onChoose({ ...turning, zone: plan.zones.find((zone) => zone.id === id)?.id ?? null })
              }
            />
          )}
          <Choice
            label="Stops at"
            value={turning.through}
            options={[
              ['every', 'Every channel'],
              ['marks', 'What is scanned'],
              ...(model.skipSets ? plan.skipSets : []).map(
                ({ id, name, way }) => [id, way === 'only' ? `Only ${name}` : `All but ${name}`] as const,
              ),
            ]}
            onChange={(to) => onChoose({ ...turning, through: to })}
          />
          <Count of={count} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const Count = ({ of }: { of: () => number }) => (
  <p className="text-[12px] text-soft" role="status">
    {countOf(of(), KINDS.channel)} of this list.
  </p>
);
