import { z } from 'zod';
import { MODES, STEPS, type Mode, type Step } from '../radio';

const rangeSchema = z.object({ from: z.int(), to: z.int() });

/** A band of a model; frequencies in Hz. `transmit` is null where the radio only hears. */
export const bandSchema = z.object({
  name: z.string(),
  receive: rangeSchema,
  transmit: rangeSchema.nullable(),
});

/** What the display writes; the texts are the radio's own and may be empty where it has no such mark. */
export const faceSchema = z.object({
  /** The slot's label, its number padded with zeros to the width in braces: `M-{slot:3}`. */
  slot: z.string(),
  /** Decimals of a frequency on the display. */
  decimals: z.int().min(3).max(6),
  marks: z.object({
    sendTone: z.string(),
    bothTones: z.string(),
    code: z.string(),
    narrow: z.string(),
    lowPower: z.string(),
    skipped: z.string(),
    plus: z.string(),
    minus: z.string(),
    split: z.string(),
    sending: z.string(),
    noTransmit: z.string(),
  }),
  /** The setting that chooses what the large line shows. */
  largeLine: z.object({ setting: z.string(), fallback: z.enum(['name', 'frequency', 'slot']) }),
});

/** How the stream link of a model runs; see core/link. */
export const linkSchema = z.object({
  kind: z.literal('stream'),
  /** What the radio answers with, 8 characters filled with spaces. */
  ident: z.string().length(8),
  /** Bits per second; ten bits carry one byte. */
  lineRate: z.int(),
  blockBytes: z.int().min(16).max(1024),
  /** Blocks that may be under way before an answer is waited for. */
  window: z.int().min(1).max(16),
});

/**
 * What a model can do: what fit, check and the screens read; and how it is linked. How its bytes lie is its format, which
 * `core/image` alone reads. The code knows no model by name: adding one is adding a folder.
 */
export const modelSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string(),
  maker: z.string(),
  /** Other names under which the same radio is sold. */
  alsoSoldAs: z.array(z.object({ name: z.string(), maker: z.string() })),
  summary: z.string(),
  slots: z.object({ first: z.int().min(0), count: z.int().min(1) }),
  names: z.object({ length: z.int().min(1), characters: z.string() }),
  bands: z.array(bandSchema).min(1),
  steps: z.array(z.custom<Step>((step) => STEPS.includes(step as Step))).min(1),
  modes: z.array(z.enum(MODES as [Mode, ...Mode[]])).min(1),
  /** Highest first. */
  powers: z.array(z.object({ label: z.string(), milliwatts: z.int().min(1) })).min(1),
  /** Tenths of Hz. */
  tones: z.array(z.int()),
  codes: z.array(z.int()),
  invertedCodes: z.boolean(),
  link: linkSchema,
  face: faceSchema,
});
export type Model = z.infer<typeof modelSchema>;
export type ModelBand = z.infer<typeof bandSchema>;
