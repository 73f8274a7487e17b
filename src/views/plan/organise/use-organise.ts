'use client';

import { useMemo, useState } from 'react';
import { homeListOf, sidesOf, slotsOf } from '@/core/models';
import { bandName, carry, carryBands, copy, homePlace, joining, type BandSides } from '@/core/organise';
import { idsOf, type Channel, type ChannelId, type Edit, type Zone, type ZoneId } from '@/core/plan';
import { useDesk } from '../desk';

/** Ids for what is made on the page. */
export const newId = idsOf(() => crypto.getRandomValues(new Uint8Array(12)));

const channels = (n: number) => (n === 1 ? '1 channel' : `${n} channels`);

/** What is chosen on the page, and what can be done to it. Every gesture is one edit, and `said` tells what came of it. */
export function useOrganise() {
  const { hand } = useDesk();
  const { plan, model, store } = hand;
  const [chosen, setChosen] = useState<ReadonlySet<ChannelId>>(new Set());
  const [said, setSaid] = useState('');
  const sides = useMemo(() => sidesOf(model), [model]);
  const { besides } = hand.shown.views;
  const sideName = (list: number) => model.lists[list]!.name.toLowerCase();

  /** Runs an edit; what came of it is said in one sentence. */
  const run = (edit: Edit, done: string): boolean => {
    const result = store.apply(edit);
    setSaid(result.ok ? done : result.reason);
    return result.ok;
  };
  const noRoom = (n: number) => (n > 0 ? ` ${channels(n)} found no room and stayed.` : '');

  const carryTo = (ids: ReadonlySet<ChannelId>, list: number) => {
    const { moves, leftOver } = carry(plan, ids, list, model);
    if (moves.length === 0)
      return setSaid(
        leftOver.length > 0 ? 'There is no room on that side.' : 'They are on that side already.',
      );
    run(
      { name: 'arrange', how: 'move', moves },
      `Carried ${channels(moves.length)} to the ${sideName(list)}.${noRoom(leftOver.length)}`,
    );
  };
  const copyTo = (ids: ReadonlySet<ChannelId>, list: number) => {
    const made = copy(plan, ids, list, model, newId.channel);
    if (made.channels.length === 0) return setSaid('There is no room on that side.');
    const range = slotsOf(model, list)!;
    run(
      {
        name: 'place',
        channels: made.channels,
        placement: 'next-free',
        ...(list > 0 && { list }),
        at: range.first,
        range,
        expect: made.expect,
      },
      `Copied ${channels(made.channels.length)} to the ${sideName(list)}.${noRoom(made.leftOver.length)}`,
    );
  };
  const bandsTo = (to: BandSides) => {
    const { moves, leftOver } = carryBands(plan, to, model);
    if (moves.length === 0) return setSaid('They lie so already.');
    run(
      { name: 'arrange', how: 'move', moves },
      `Carried ${channels(moves.length)}: ${Object.entries(to)
        .map(([band, list]) => `${band} ${sideName(list)}`)
        .join(', ')}.${noRoom(leftOver.length)}`,
    );
  };

  const addToZone = (zone: Zone, ids: Iterable<ChannelId>) => {
    const held = new Set(zone.members);
    const added = [...ids].filter((id) => !held.has(id));
    if (added.length === 0) return setSaid(`All of them are in “${zone.name}” already.`);
    const { edit, done, over } = joining(
      plan,
      model,
      'zone',
      added.map((row) => ({ column: zone.id, row })),
      true,
    );
    if (!edit) return setSaid(`“${zone.name}” is full.`);
    run(edit, `Put ${channels(done)} into “${zone.name}”.${noRoom(over)}`);
  };
  const takeFromZone = (zone: Zone, ids: ReadonlySet<ChannelId>) => {
    const cells = [...ids].map((row) => ({ column: zone.id, row }));
    const { edit, done } = joining(plan, model, 'zone', cells, false);
    if (edit) run(edit, `Took ${channels(done)} out of “${zone.name}”.`);
  };
  /** Puts the chosen into a zone, or takes them out where all are in it. */
  const toggleZone = (zone: Zone | undefined) => {
    if (!zone || chosen.size === 0) return;
    const held = new Set(zone.members);
    if ([...chosen].every((id) => held.has(id))) takeFromZone(zone, chosen);
    else addToZone(zone, chosen);
  };
  const addZones = (zones: { name: string; members: ChannelId[] }[]) =>
    run(
      {
        name: 'put',
        kind: 'zone',
        records: zones.map((zone) => ({ ...zone, id: newId.zone() })),
        before: null,
      },
      zones.length === 1 ? `Added “${zones[0]!.name}”.` : `Added ${zones.length}.`,
    );

  /** Makes a channel the home channel of its band on a side, in the place of what was that. */
  const makeHome = (channel: Channel, side: number) => {
    const homeList = homeListOf(model, side);
    const place = homePlace(channel, homeList, model);
    if (!place) return setSaid('This radio has no home channel there.');
    const { slot: _, list: _list, ...fields } = channel;
    run(
      {
        name: 'place',
        channels: [{ ...fields, id: newId.channel() }],
        placement: 'overwrite',
        list: place.list,
        at: place.slot,
        range: slotsOf(model, place.list)!,
      },
      `“${channel.name}” is the home channel of ${bandName(channel, model)} on the ${sideName(side)}.`,
    );
  };

  return {
    plan,
    model,
    sides,
    sideName,
    besides,
    chosen,
    setChosen,
    said,
    setSaid,
    run,
    carryTo,
    copyTo,
    bandsTo,
    addToZone,
    takeFromZone,
    toggleZone,
    addZones,
    removeZone: (id: ZoneId, name: string) =>
      run({ name: 'remove', kind: 'zone', ids: [id] }, `Removed “${name}”. Ctrl Z brings it back.`),
    makeHome,
  };
}

export type Organising = ReturnType<typeof useOrganise>;

/** The word of this radio for a zone. */
export const zoneWord = ({ model }: Pick<Organising, 'model'>): string => model.zones?.word ?? 'zone';
