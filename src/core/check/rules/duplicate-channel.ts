import { onAirKey, type Channel } from '../../plan';
import { remembered, rememberedAlong } from '../../remember';
import { asSeen } from '../as-seen';
import type { Hit, PlanRule } from '../finding';

// Talkgroups share a repeater: two of them are two channels.
const keysOf = rememberedAlong(
  (channel: Channel) => `${channel.list} ${onAirKey(channel)} ${channel.talkgroup ?? ''}`,
);
const onAirAll = asSeen('list', 'rx', 'tx', 'mode', 'access', 'talkgroup');

const twins = remembered((channels: readonly Channel[]): Hit[] => {
  const first = new Map<string, number>();
  return keysOf(channels).flatMap((key, at) => {
    const twin = first.get(key);
    if (twin === undefined) {
      first.set(key, at);
      return [];
    }
    return [
      {
        at: [at, twin],
        say: ([one, other]) => ({
          severity: 'caution',
          field: 'slot',
          text: `The same channel as slot ${other!.slot}, “${other!.name}”: the scan visits it twice.`,
          mends: () => [{ label: 'Remove this one', edit: { name: 'remove', ids: [one!.id] } }],
        }),
      },
    ];
  });
});

/** The same receive, transmit, mode, access and talkgroup in two slots of one list; two sides may well have it, and a home channel is one of its own. */
export const duplicateChannel: PlanRule = {
  id: 'duplicate-channel',
  looksFor: 'the same channel in two slots',
  about: ['channel'],
  find: ({ plan }) => twins(onAirAll(plan.channels)),
};
