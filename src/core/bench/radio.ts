import { z } from 'zod';
import { radioIdSchema, unitFactsSchema } from '../plan';
import { copySchema } from './copy';
import { ownSettingsSchema } from './several';

/** `half written`: a write broke off, and it does nothing until it is written whole. */
export const RADIO_CONDITIONS = ['whole', 'half written'] as const;
export type RadioCondition = (typeof RADIO_CONDITIONS)[number];

/** A radio that has been on the bench. */
export const radioSchema = z.object({
  id: radioIdSchema,
  /** null where this kind of radio has none that Veridon could see. */
  serial: z.string().nullable(),
  /** What sentences call it: its serial, or the name of its model. */
  called: z.string(),
  modelId: z.string(),
  /** Maker and name, for people. */
  model: z.string(),
  firmware: z.string(),
  /** The newest firmware that Veridon knows of this model, where this one is newer: it is read, and not written. */
  newerThan: z.string().nullable(),
  /** Percent, where its link says so. */
  battery: z.int().nullable(),
  /** The ITU region whose set it is, by its own word. */
  region: z.int(),
  /** How it was made, by its newest sealed copy; null where that tells nothing of it. */
  facts: unitFactsSchema.nullable(),
  /** What its owner calls it; empty where nothing. */
  label: z.string(),
  /** True where a write broke off that can go on. */
  canResume: z.boolean(),
  /** Settings of its own, as they were written last. */
  own: ownSettingsSchema,
  state: z.enum(RADIO_CONDITIONS),
  lastSeen: z.string(),
  /** The port that it is on now; null where it is away. */
  port: z.string().nullable(),
  /** Newest first. */
  copies: z.array(copySchema),
});
export type Radio = z.infer<typeof radioSchema>;

/** The bench as it is now: ports with who is on them, and every radio that has been here. */
export const benchSchema = z.object({
  /** Whether the bench process answers. */
  reachable: z.boolean(),
  ports: z.array(
    z.object({
      name: z.string(),
      busy: z.boolean(),
      radioId: radioIdSchema.nullable(),
      /** Why nobody is known to be there. */
      reason: z.string().nullable(),
      /** The models that answer as what is there does, where they are several: a person says which it is. */
      choices: z.array(z.object({ id: z.string(), name: z.string() })),
      /** Whether the radio has loaded the card that Veridon wrote; null where it is no such card. */
      loaded: z.boolean().nullable(),
    }),
  ),
  radios: z.array(radioSchema),
  /** What lies on the simulated bench with its cable out. */
  lying: z.array(z.object({ label: z.string(), serial: z.string(), model: z.string(), cabled: z.boolean() })),
});
export type Bench = z.infer<typeof benchSchema>;
