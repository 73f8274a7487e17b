'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { homeOf, roomFor, ROOM_WAYS, type Candidate, type RoomWay } from '@/core/directory';
import { byChannel } from '@/core/heard';
import { slotText, type Channel, type Plan } from '@/core/plan';
import type { Point } from '@/core/radio';
import { call } from '@/api/call';
import { historyApi } from '@/api/history';
import { Choice } from '@/ui';

/** How many channels go to make room, and by what they are chosen; none until somebody says so. */
export type Room = RoomWay | 'none';

const WORDS: Record<Room, string> = {
  none: 'leave over what finds no slot',
  'off the air': 'what is off the air goes',
  'never heard': 'what was never heard goes',
  farthest: 'the farthest go',
};

/** What would go from a plan so that so many channels find a slot. */
export function useRoom(
  plan: Plan,
  list: number,
  candidates: readonly Candidate[],
  searched: Point | null,
): (room: Room, n: number) => Channel[] {
  const heard = useQuery({
    queryKey: ['heard', plan.id],
    queryFn: () => call(historyApi.heard, { params: { id: plan.id } }),
    staleTime: 60_000,
  });
  const context = useMemo(
    () => ({
      from: searched ?? homeOf(plan),
      heard: byChannel(heard.data?.heard ?? []),
      offAir: new Set(
        candidates.flatMap(({ source, entry }) => (entry.onAir ? [] : [`${source} ${entry.ref}`])),
      ),
    }),
    [searched, plan, heard.data, candidates],
  );
  return (room, n) => (room === 'none' ? [] : roomFor(plan, n, room, context, list));
}

/** Proposes what could go, and shows it before it does. */
export function RoomOffer({
  room,
  onRoom,
  going,
  n,
}: {
  room: Room;
  onRoom: (room: Room) => void;
  going: readonly Channel[];
  /** How many find no slot as it is. */
  n: number;
}) {
  return (
    <div className="border-t border-line px-3 py-2 text-[13px]">
      <p className="pb-1 text-soft">{n === 1 ? 'One finds no slot.' : `${n} find no slot.`}</p>
      <Choice
        label="To make room"
        value={room}
        options={(['none', ...ROOM_WAYS] as const).map((way) => [way, WORDS[way]] as const)}
        onChange={onRoom}
      />
      {room !== 'none' && (
        <p role="status" className="pt-1 text-soft">
          {going.length === 0
            ? 'There is nothing of that kind in the plan.'
            : `${going.length} wait left over instead: ${going
                .slice(0, 8)
                .map(({ slot, name }) => `${slotText(slot)} ${name}`)
                .join(', ')}${going.length > 8 ? ' …' : ''}.`}
        </p>
      )}
    </div>
  );
}
