import { accessOnAir } from '../../radio';
import { sameChannel } from '../../plan';
import type { Rule } from '../finding';

/** The same receive, transmit, mode and access in two slots. */
export const duplicateChannel: Rule = {
  id: 'duplicate-channel',
  looksFor: 'the same channel in two slots',
  find: ({ plan }) => {
    // By all that makes two channels the same; only the first of each has to be looked at, however many there are.
    const alike = new Map<string, typeof plan.channels>();
    return plan.channels.flatMap((channel) => {
      const { rx, tx, mode, access } = channel;
      const key = `${rx} ${tx} ${mode} ${accessOnAir(access)}`;
      const earlier = alike.get(key) ?? [];
      const twin = earlier.find((other) => sameChannel(other, channel));
      if (!twin) {
        alike.set(key, [...earlier, channel]);
        return [];
      }
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
