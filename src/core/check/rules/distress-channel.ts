import { citation, DISTRESS_SOURCE, distressAt, formatFrequency } from '../../radio';
import type { Channel } from '../../plan';
import { channelRule, setMend, type CheckContext } from '../finding';

/** The channel of distress, calling or emergency that this one would send on, unless it may: a ship's plan may at sea. */
export function distressOf(channel: Channel, { plan, factsOf }: CheckContext) {
  if (!factsOf(channel).sends) return undefined;
  const found = distressAt(channel.tx!, channel.mode);
  return found?.service === 'sea' && plan.owner.marine ? undefined : found;
}

/** Sending where ships, aircraft and beacons call for help. */
export const distressChannel = channelRule(
  'distress-channel',
  'sending on distress, calling and emergency channels',
  (channel, context) => {
    const found = distressOf(channel, context);
    if (!found) return undefined;
    return {
      severity: 'stop',
      field: 'tx',
      text: `Disturbs a call for help: ${formatFrequency(channel.tx!)} is ${found.purpose}.`,
      source: citation(DISTRESS_SOURCE),
      mends: () => [setMend(channel, 'Make it listen only', { tx: null })],
    };
  },
);
