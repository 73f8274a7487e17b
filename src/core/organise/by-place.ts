import type { FittedChannel } from '../models';

/** Where a channel stands in a radio. */
export type Place = Pick<FittedChannel, 'list' | 'slot'>;

export const keyOf = ({ list, slot }: Place) => `${list} ${slot}`;

/** What a radio holds, by its place. */
export const byPlace = <C extends Place>(channels: readonly C[]): Map<string, C> =>
  new Map(channels.map((channel) => [keyOf(channel), channel]));
