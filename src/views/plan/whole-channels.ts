import { z } from 'zod';
import { CHANNEL_LIMIT, newChannelSchema, type NewChannel } from '@/core/plan';

const schema = z.array(newChannelSchema).min(1).max(CHANNEL_LIMIT);

/** The channels that another table copied; undefined where it is something else. Their slots are of their own plan and left behind. */
export function readWhole(text: string): NewChannel[] | undefined {
  try {
    const read = schema.safeParse(JSON.parse(text));
    return read.success ? read.data : undefined;
  } catch {
    return undefined;
  }
}
