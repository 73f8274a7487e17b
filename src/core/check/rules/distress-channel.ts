import { citation, DISTRESS_SOURCE, distressAt, formatFrequency } from '../../radio';
import { canSend } from '../../fit';
import type { Model } from '../../models';
import type { Channel, Plan } from '../../plan';
import { channelRule, setMend } from '../finding';

/** The channel of distress, calling or emergency that this one would send on, unless it may: a ship's plan may at sea. */
export function distressOf(channel: Channel, plan: Plan, model: Model) {
  if (!canSend(channel, model)) return undefined;
  const found = distressAt(channel.tx!, channel.mode);
  return found?.service === 'sea' && plan.owner.marine ? undefined : found;
}

/** Sending where ships, aircraft and beacons call for help. */
export const distressChannel = channelRule(
  'distress-channel',
  'sending on distress, calling and emergency channels',
  (channel, { plan, model }) => {
    const found = distressOf(channel, plan, model);
    if (!found) return undefined;
    return {
      severity: 'stop',
      field: 'tx',
      text: `Disturbs a call for help: ${formatFrequency(channel.tx!)} is ${found.purpose}.`,
      source: citation(DISTRESS_SOURCE),
      mend: setMend(channel, 'Make it listen only', { tx: null }),
    };
  },
);
