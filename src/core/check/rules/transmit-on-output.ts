import { distanceKm, formatFrequency, usualShift } from '../../radio';
import type { Channel } from '../../plan';
import type { Rule } from '../finding';

/** Stations further apart than this do not disturb each other, km; those without a place count as near. */
const NEARBY_KM = 150;
/** More repeaters than this on one output are not looked at: no band has so many, and every channel is held against each. */
const MOST_OUTPUTS = 100;

function near(a: Channel, b: Channel): boolean {
  const [p, q] = [a.source, b.source];
  if (p?.lat === undefined || p.lon === undefined || q?.lat === undefined || q.lon === undefined) return true;
  return distanceKm({ lat: p.lat, lon: p.lon }, { lat: q.lat, lon: q.lon }) <= NEARBY_KM;
}

/** A transmit frequency that is the output of a repeater nearby: it would be talked over. */
export const transmitOnOutput: Rule = {
  id: 'transmit-on-output',
  looksFor: 'sending on the output of another repeater',
  find: ({ plan }) => {
    const outputs = new Map<number, Channel[]>();
    for (const channel of plan.channels) {
      if (channel.tx === null || channel.tx - channel.rx !== usualShift(channel.rx, plan.owner.region)?.shift)
        continue;
      const there = outputs.get(channel.rx);
      if (!there) outputs.set(channel.rx, [channel]);
      else if (there.length < MOST_OUTPUTS) there.push(channel);
    }
    return plan.channels.flatMap((channel) => {
      if (channel.tx === null) return [];
      const hit = outputs
        .get(channel.tx)
        ?.find((output) => output.id !== channel.id && near(channel, output));
      return hit
        ? [
            {
              severity: 'caution' as const,
              id: channel.id,
              field: 'tx' as const,
              text: `Talks over “${hit.name}”: ${formatFrequency(channel.tx)} is its output.`,
            },
          ]
        : [];
    });
  },
};
