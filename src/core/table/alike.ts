import { accessOnAir, allocationsOf, type Rules } from '../radio';
import type { Channel, ChannelId } from '../plan';
import type { Alike } from './words';

export interface AlikeContext {
  rules: Rules;
  /** The kinds of what Check says of a channel. */
  findings: (channel: Channel) => readonly string[];
}

/** What a channel has in common with those that are like it; several where one is enough, none where it is like no other. */
function marksOf(channel: Channel, alike: Alike, { rules, findings }: AlikeContext): readonly string[] {
  const { rx, tx } = channel;
  switch (alike) {
    case 'band':
      return allocationsOf(rules)
        .filter(({ from, to }) => rx >= from && rx <= to)
        .map(({ band }) => band);
    case 'mode':
      return [channel.mode];
    case 'access':
      return [accessOnAir(channel.access)];
    case 'shift':
      return [tx === null ? 'listen only' : String(tx - rx)];
    case 'source':
      return [channel.source?.directory ?? 'by hand'];
    case 'finding':
      return findings(channel);
  }
}

/** Of the channels, those that are like one of them in something; that one among them wherever it is like any, itself included. */
export function alikeTo(
  channels: readonly Channel[],
  one: Channel,
  alike: Alike,
  context: AlikeContext,
): ChannelId[] {
  const wanted = new Set(marksOf(one, alike, context));
  return channels
    .filter((channel) => marksOf(channel, alike, context).some((mark) => wanted.has(mark)))
    .map(({ id }) => id);
}
