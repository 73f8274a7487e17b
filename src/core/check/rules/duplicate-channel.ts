import { onAirKey, type Channel } from '../../plan';
import { remembered } from '../../remember';
import type { PlanRule } from '../finding';

const onAir = remembered((channel: Channel) => onAirKey(channel));

/** The same receive, transmit, mode and access in two slots. */
export const duplicateChannel: PlanRule = {
  id: 'duplicate-channel',
  looksFor: 'the same channel in two slots',
  about: ['channel'],
  find: ({ plan }) => {
    const alike = new Map<string, Channel>();
    return plan.channels.flatMap((channel) => {
      const key = onAir(channel);
      const twin = alike.get(key);
      if (!twin) {
        alike.set(key, channel);
        return [];
      }
      return [
        {
          severity: 'caution' as const,
          id: channel.id,
          field: 'slot' as const,
          text: `The same channel as slot ${twin.slot}, “${twin.name}”: the scan visits it twice.`,
          mends: () => [{ label: 'Remove this one', edit: { name: 'remove' as const, ids: [channel.id] } }],
        },
      ];
    });
  },
};
