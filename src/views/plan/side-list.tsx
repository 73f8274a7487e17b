import { useMemo } from 'react';
import type { FindingField } from '@/core/check';
import { slotText, type ChannelId } from '@/core/plan';
import type { ShownPlan } from './use-plan';

/** What the lists beside the table have in common. */
export interface SideListProps {
  hand: ShownPlan;
  /** The chosen channel. */
  active: ChannelId | null;
  onSelect: (id: ChannelId, field: FindingField) => void;
}

/** A row of a list. */
export const item = 'border-b border-line px-3 py-2 text-[13px]';
/** The chosen channel's rows come first. */
export const ownFirst = <T extends { id: ChannelId }>(list: readonly T[], active: ChannelId | null) => [
  ...list.filter(({ id }) => id === active),
  ...list.filter(({ id }) => id !== active),
];

/** Slot and name of every channel, for people. */
export function useNames(hand: ShownPlan) {
  return useMemo(
    () =>
      new Map(
        hand.plan.channels.map((channel) => [
          channel.id,
          { slot: slotText(channel.slot), name: channel.name || 'no name' },
        ]),
      ),
    [hand.plan.channels],
  );
}
