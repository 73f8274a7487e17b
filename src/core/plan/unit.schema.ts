import { z } from 'zod';
import { text } from '../text.schema';
import { radioIdSchema } from './ids.schema';

/** Most bands and most options of which a unit says something. */
const MOST_BANDS = 64;
const MOST_OPTIONS = 32;

/** Frequencies, Hz, from the lower edge to the upper one, both with it. */
const betweenSchema = z
  .object({ from: z.int().min(0), to: z.int().min(0) })
  .refine(({ from, to }) => from <= to, 'has its lower edge above its upper one');

/** What only a unit itself can tell of how it was made: read of its memory, never written. */
export const unitFactsSchema = z.object({
  /** The ITU region whose set it is: 1, 2 or 3 by rights. */
  region: z.int().min(0).max(255),
  /** Where it sends, by the names of its model's bands; null where it does not send there. Of a band that is not named its model tells. */
  sends: z
    .record(text(40), betweenSchema.nullable())
    .refine((bands) => Object.keys(bands).length <= MOST_BANDS, `names more than ${MOST_BANDS} bands`),
  /** The options of its model that it was bought without. */
  lacks: z.array(text(40)).max(MOST_OPTIONS),
});
export type UnitFacts = z.infer<typeof unitFactsSchema>;

/** The one radio that a plan is worked on for, as it was when it was read last. */
export const unitSchema = z.object({
  radio: radioIdSchema,
  /** Its serial, or the name of its model. */
  called: text(60),
  /** null where its memory tells nothing of it. */
  facts: unitFactsSchema.nullable(),
});
export type Unit = z.infer<typeof unitSchema>;
