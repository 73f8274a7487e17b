import { sameChannel } from '../../plan';
import type { Rule } from '../finding';

/** The same receive, transmit, mode and access in two slots. */
export const duplicateChannel: Rule = {
  id: 'duplicate-channel',
  looksFor: 'the same channel in two slots',
  find: ({ plan }) => {
    const byReceive = new Map<number, typeof plan.channels>();
    return plan.channels.flatMap((channel) => {
      const earlier = byReceive.get(channel.rx) ?? [];
      const twin = earlier.find((other) => sameChannel(other, channel));
      byReceive.set(channel.rx, [...earlier, channel]);
      if (!twin) return [];
      return [
        {
          severity: 'caution' as const,
          id: channel.id,
          field: 'slot' as const,
          text: `The same channel as slot ${twin.slot}, “${twin.name}”: the scan visits it twice.`,
          mend: { label: 'Remove this one', edit: { name: 'remove' as const, ids: [channel.id] } },
        },
      ];
    });
  },
};
