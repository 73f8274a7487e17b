import { z } from 'zod';
import { callNumberSchema } from '../plan/talkgroup.schema';
import { accessSchema, MODES, type Mode } from '../radio';

export const entryGroupSchema = z.object({
  /** The time slot that carries it. */
  slot: z.union([z.literal(1), z.literal(2)]),
  name: z.string(),
  number: callNumberSchema,
  /** Nobody without its key understands it. */
  encrypted: z.boolean().optional(),
});
/** A talkgroup that a digital repeater carries. */
export type EntryGroup = z.infer<typeof entryGroupSchema>;

export const entrySchema = z.object({
  ref: z.string(),
  call: z.string(),
  site: z.string(),
  island: z.string(),
  service: z.string(),
  /** What the station sends on: our receive. */
  output: z.int(),
  /** What it listens on: our transmit; null where it only sends. */
  input: z.int().nullable(),
  access: accessSchema,
  mode: z.enum(MODES as [Mode, ...Mode[]]),
  lat: z.number(),
  lon: z.number(),
  height: z.number(),
  onAir: z.boolean(),
  constant: z.boolean(),
  /** Nobody without its key understands it. */
  encrypted: z.boolean(),
  updated: z.string(),
  /** The network that a digital repeater is linked to, and the talkgroups that it carries. */
  network: z.string().optional(),
  groups: z.array(entryGroupSchema).optional(),
});
/** A station of a directory. Frequencies in Hz, height in m. */
export type Entry = z.infer<typeof entrySchema>;
