import { z } from 'zod';
import { KIND_NAMES } from '../plan';
import { settingValueSchema } from '../plan/setting-value.schema';

/** What a setting is about: the heading under which a person looks for it. */
export const TOPICS = [
  'identity',
  'display',
  'sound',
  'receive',
  'transmit',
  'scanning',
  'keys',
  'power',
  'position',
  'digital',
] as const;

const option = z.union([z.string(), z.number(), z.boolean()]);

/** One of a few values. `words` says in words what a value means, by the value as text; others are said as they are, with their unit. */
export const choiceSchema = z.object({
  kind: z.literal('choice'),
  values: z.array(option).min(2),
  words: z.record(z.string(), z.string()).optional(),
  unit: z.string().optional(),
});

export const switchSchema = z.object({ kind: z.literal('switch') });

const range = {
  /** What people read it in: `kHz`. Empty for a plain number. */
  unit: z.string(),
  /** How many of the value make one of the unit: 1,000 for kilohertz of a value in hertz. */
  scale: z.number().min(1),
  least: z.number(),
  most: z.number(),
  /** Values are `least` and whole steps above it. */
  step: z.number().min(1),
};

/** A number from `least` to `most`, both of the value and not of the unit. */
export const numberSchema = z.object({ kind: z.literal('number'), ...range });

/** A text of at most so many characters; of those of the display where none are named. */
export const textSchema = z.object({
  kind: z.literal('text'),
  length: z.int().min(1),
  characters: z.string().optional(),
});

/** Numbers at so many points, each at or above the one before: thresholds of a squelch. */
export const curveSchema = z.object({ kind: z.literal('curve'), points: z.int().min(2), ...range });

/** A record of the plan. Of channels those of one of the radio's lists. */
export const referenceSchema = z.object({
  kind: z.literal('reference'),
  to: z.enum(KIND_NAMES),
  list: z.int().min(0).optional(),
});

/** A place on Earth. */
export const positionSchema = z.object({ kind: z.literal('coordinate') });

const simple = [
  choiceSchema,
  switchSchema,
  numberSchema,
  textSchema,
  referenceSchema,
  positionSchema,
] as const;

/** So many memories of one kind, each of which may be empty. */
export const listSchema = z.object({
  kind: z.literal('list'),
  count: z.int().min(1),
  of: z.discriminatedUnion('kind', [...simple]),
});

/** A value for each side of the radio. */
export const sidesSchema = z.object({
  kind: z.literal('sides'),
  sides: z.array(z.string()).min(2),
  of: z.discriminatedUnion('kind', [...simple, curveSchema, listSchema]),
});

/** What the value of a setting may be. */
export const valueSchema = z.discriminatedUnion('kind', [...simple, curveSchema, listSchema, sidesSchema]);

/** A setting of a model: what it is, for people and for the plan. Where its bytes lie is said by the format, under the same key. */
export const settingSchema = z.object({
  key: z.string(),
  /** `plan`: one value for every radio that gets the plan. `unit`: a value of one radio, which goes to no other. */
  scope: z.enum(['plan', 'unit']),
  topic: z.enum(TOPICS),
  name: z.string(),
  /** What it does, in a sentence. */
  help: z.string(),
  value: valueSchema,
  /** The factory value, null where the field leaves the factory empty; `byRegion` by the ITU region of the unit where that differs. */
  default: settingValueSchema.nullable(),
  byRegion: z.partialRecord(z.enum(['1', '2', '3']), settingValueSchema).optional(),
  /** True where the radio wants to be switched off and on after it changed. */
  restart: z.boolean().optional(),
});

export type ValueKind = z.infer<typeof valueSchema>;
export type Setting = z.infer<typeof settingSchema>;
export type Topic = (typeof TOPICS)[number];
