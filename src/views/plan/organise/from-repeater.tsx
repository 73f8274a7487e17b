'use client';

import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useMemo, useState } from 'react';
import { call } from '@/api/call';
import { directoryApi } from '@/api/directories';
import {
  networkOf,
  openGroups,
  stationKey,
  type Candidate,
  type ChosenRepeater,
  type EntryGroup,
} from '@/core/directory';
import { callNumberText } from '@/core/plan';
import { formatFrequency } from '@/core/radio';
import { Button, Choice, Field, Scroll, Tick, TickField } from '@/ui';
import { PlaceField, type PlaceFound } from './place-field';
import { newId, type Organising } from './use-organise';

const TEMPLATES = ['{group}', '{city:6} {group}', '{call} {group}', '{group} {slot}'] as const;
const groupKey = (number: number, slot: number) => `${number} ${slot}`;

/** Digital repeaters of the directories, with their talkgroups: chosen, named by a template, and made channels, lists and a zone in one edit. */
export function FromRepeater({ organising, onClose }: { organising: Organising; onClose: () => void }) {
  const { plan, model, run } = organising;
  const [place, setPlace] = useState<PlaceFound | null>(null);
  const [radius, setRadius] = useState('60');
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  /** Those that are otherwise than they are by themselves. */
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set());
  const [encrypted, setEncrypted] = useState(false);
  const [template, setTemplate] = useState<string>(TEMPLATES[0]);
  const km = Math.min(1000, Math.max(1, Number(radius) || 60));
  const { data, error, isFetching } = useQuery({
    queryKey: ['digital repeaters', place?.lat, place?.lon, km, model.id],
    queryFn: () =>
      call(directoryApi.stations, {
        query: {
          ...{ lat: place!.lat, lon: place!.lon, radius: km, ask: 'yes', most: 2000 },
          ...{ route: undefined, sources: undefined, plan: undefined, model: model.id },
        },
      }),
    enabled: place !== null,
    staleTime: 60_000,
  });
  const repeaters = useMemo(
    () =>
      (data?.candidates ?? []).filter(
        ({ entry, unfit }) => (entry.groups?.length ?? 0) > 0 && unfit === null,
      ),
    [data],
  );
  const chosen = repeaters.filter((one) => picked.has(stationKey(one)));
  const groups = useMemo(() => groupsOf(chosen), [chosen]);
  /** What nobody without its key understands is shown, and left out unless it is asked for. */
  const isOn = ({ number, slot, encrypted: locked }: EntryGroup) =>
    toggled.has(groupKey(number, slot)) ? Boolean(locked) && !encrypted : !locked || encrypted;
  const made = useMemo(() => {
    if (chosen.length === 0) return null;
    const wanted = chosen.map(({ source, entry }): ChosenRepeater => ({
      directory: source,
      entry,
      groups: openGroups(entry, true).filter(isOn),
    }));
    return networkOf(plan, model, wanted, template, newId);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- what is on is told by these
  }, [chosen, encrypted, toggled, plan, model, template]);
  const toggle = (set: ReadonlySet<string>, key: string) => {
    const next = new Set(set);
    if (!next.delete(key)) next.add(key);
    return next;
  };
  return (
    <section aria-label="From a repeater" className="flex min-h-0 flex-1 flex-col">
      <div className="flex shrink-0 flex-wrap items-end gap-3 border-b border-line px-3 py-2 text-[13px]">
        <PlaceField className="w-52" label="Digital repeaters near" onPlace={setPlace} />
        <Field
          className="w-20"
          label="Within, km"
          inputMode="numeric"
          value={radius}
          onChange={(event) => setRadius(event.target.value)}
        />
        <Choice
          className="w-48"
          label="Names"
          value={template}
          options={TEMPLATES.map((one) => [one as string, one] as const)}
          onChange={setTemplate}
        />
        <TickField className="pb-1.5" checked={encrypted} onChange={setEncrypted}>
          encrypted ones too
        </TickField>
        <span className="flex-1" />
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[1fr_1fr_1fr] gap-px bg-line text-[13px]">
        <div className="flex min-h-0 flex-col bg-sheet">
          <h2 className="shrink-0 px-3 py-1.5 font-semibold">
            Repeaters{' '}
            <span className="font-normal text-soft">{place && `${repeaters.length} near ${place.name}`}</span>
          </h2>
          <Scroll label="Digital repeaters" className="flex-1">
            {!place && (
              <p className="px-3 text-soft">Write a town: its digital repeaters come, the nearest first.</p>
            )}
            {place && error && <p className="px-3 text-stop">The directory does not answer.</p>}
            {place && !error && !isFetching && repeaters.length === 0 && (
              <p className="px-3 text-soft">
                None of them is digital here, or this radio cannot use them. Look farther.
              </p>
            )}
            <ul>
              {repeaters.slice(0, 200).map((one) => {
                const key = stationKey(one);
                return (
                  <li key={key} className={clsx('border-b border-line', picked.has(key) && 'bg-wash')}>
                    <label className="flex items-center gap-2 px-3 py-1">
                      <Tick
                        checked={picked.has(key)}
                        onCheckedChange={() => setPicked(toggle(picked, key))}
                      />
                      <span className="min-w-0 flex-1">
                        <span className="block truncate font-medium">{one.entry.site}</span>
                        <span className="block truncate text-[12px] text-soft">
                          {one.entry.call} · {one.entry.groups!.length} talkgroups ·{' '}
                          {Math.round(one.distance)} km {one.wind}
                          {!one.entry.onAir && ' · off the air'}
                        </span>
                      </span>
                      <span className="mono text-receive">{formatFrequency(one.entry.output)}</span>
                    </label>
                  </li>
                );
              })}
            </ul>
          </Scroll>
        </div>
        <div className="flex min-h-0 flex-col bg-sheet">
          <h2 className="shrink-0 px-3 py-1.5 font-semibold">Talkgroups</h2>
          <Scroll label="Their talkgroups" className="flex-1">
            {chosen.length === 0 && <p className="px-3 text-soft">Those of the repeaters that are ticked.</p>}
            <ul>
              {groups.map((group) => {
                const { number, slot, name, n, encrypted: locked } = group;
                const key = groupKey(number, slot);
                return (
                  <li key={key} className="border-b border-line">
                    <label className="flex items-center gap-2 px-3 py-1">
                      <Tick checked={isOn(group)} onCheckedChange={() => setToggled(toggle(toggled, key))} />
                      <span className="min-w-0 flex-1 truncate">
                        <span className="font-medium">{name}</span>
                        {locked && <span className="text-caution"> encrypted</span>}
                        {chosen.length > 1 && <span className="text-soft"> on {n}</span>}
                      </span>
                      <span className="mono text-[12px] text-soft">TS{slot}</span>
                      <span className="mono w-28 text-right text-[12px] text-soft">
                        {callNumberText(number)}
                      </span>
                    </label>
                  </li>
                );
              })}
            </ul>
          </Scroll>
        </div>
        <div className="flex min-h-0 flex-col bg-sheet">
          <h2 className="shrink-0 px-3 py-1.5 font-semibold">What comes of it</h2>
          <Scroll label="What comes of it" className="flex-1 px-3" live>
            {!made && (
              <p className="text-soft">
                Channels, receive lists and a zone a repeater: nothing is done before you say so.
              </p>
            )}
            {made && !made.ok && <p className="text-caution">{made.reason}</p>}
            {made?.ok && (
              <div className="flex flex-col gap-2 pb-2">
                <p>
                  {made.value.channels.length} channels, {made.value.talkgroups.length} new talkgroups
                  {made.value.shared.talkgroups > 0 &&
                    ` beside ${made.value.shared.talkgroups} that are there`}
                  , {made.value.receiveLists.length} receive lists, {made.value.zones.length}{' '}
                  {made.value.zones.length === 1 ? 'zone' : 'zones'}.
                  {made.value.there > 0 && ` ${made.value.there} are in the plan already.`}
                  {made.value.over > 0 && (
                    <span className="text-caution"> {made.value.over} find no slot and wait left over.</span>
                  )}
                </p>
                {made.value.zones.map((zone) => (
                  <div key={zone.id}>
                    <h3 className="text-[12px] font-semibold text-soft">{zone.name}</h3>
                    <ol>
                      {zone.members.slice(0, 40).map((id, at) => (
                        <li key={id} className="flex gap-2">
                          <span className="mono w-5 text-right text-soft">{at + 1}</span>
                          <span className="truncate">
                            {made.value.channels.find((channel) => channel.id === id)?.name ??
                              plan.channels.find((channel) => channel.id === id)?.name}
                          </span>
                        </li>
                      ))}
                    </ol>
                  </div>
                ))}
              </div>
            )}
          </Scroll>
          <div className="shrink-0 border-t border-line p-2.5">
            <Button
              kind="strong"
              className="w-full"
              disabled={!made?.ok}
              onClick={() => {
                if (!made?.ok) return;
                const { channels, zones } = made.value;
                if (
                  run(made.value.edit, `${channels.length} channels are new, in “${zones[0]?.name ?? ''}”.`)
                ) {
                  setPicked(new Set());
                  onClose();
                }
              }}
            >
              {made?.ok ? `Add ${made.value.channels.length} channels` : 'Add'}
            </Button>
          </div>
        </div>
      </div>
    </section>
  );
}

/** The talkgroups of several repeaters, each once a time slot, with how many of them carry it. */
function groupsOf(chosen: readonly Candidate[]) {
  const groups = new Map<string, ReturnType<typeof openGroups>[number] & { n: number }>();
  for (const { entry } of chosen)
    for (const group of openGroups(entry, true)) {
      const key = groupKey(group.number, group.slot);
      groups.set(key, { ...group, n: (groups.get(key)?.n ?? 0) + 1 });
    }
  return [...groups.values()].sort((a, b) => a.slot - b.slot || a.number - b.number);
}
