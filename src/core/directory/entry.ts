import { z } from 'zod';
import { accessSchema, MODES, type Mode } from '../radio';

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
});
/** A station of a directory. Frequencies in Hz, height in m. */
export type Entry = z.infer<typeof entrySchema>;
