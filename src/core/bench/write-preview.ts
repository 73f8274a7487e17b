import { z } from 'zod';
import type { ContentChange } from '../compare';

/** What a write of a plan would change in a radio. */
export const writePreviewSchema = z.object({
  serial: z.string(),
  planName: z.string(),
  planRevision: z.int(),
  /** Against the newest sealed copy; null where the radio has not been read yet. */
  change: z.custom<ContentChange>().nullable(),
  channels: z.int(),
  /** Channels that a stop keeps out, each with the reasons. */
  heldBack: z.array(
    z.object({ id: z.string(), name: z.string(), slot: z.int(), reasons: z.array(z.string()) }),
  ),
});
export type WritePreview = z.infer<typeof writePreviewSchema>;
