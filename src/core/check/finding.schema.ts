import { z } from 'zod';
import { channelIdSchema, editSchema, KIND_NAMES, type Kind } from '../plan';
import { SEVERITIES, FINDING_FIELDS } from './finding';

export const mendSchema = z.object({ label: z.string(), edit: editSchema });

/** An edit that takes a finding away, and what the button says. */
export type Mend = z.infer<typeof mendSchema>;

export const findingSchema = z.object({
  /** The rule's id, the name of its file. */
  rule: z.string(),
  severity: z.enum(SEVERITIES),
  /** The kind of the record. */
  kind: z.enum(KIND_NAMES as [Kind, ...Kind[]]),
  id: channelIdSchema,
  field: z.enum(FINDING_FIELDS),
  /** What happens on air, in one short sentence, without blame. */
  text: z.string(),
  /** The table that decided, where one did. */
  source: z.string().optional(),
});

/** Something worth saying of one field of one record. Its mends are made when they are asked for: `mendsOf`. */
export type Finding = z.infer<typeof findingSchema>;

export const besideFindingSchema = z.object({
  /** What is wrong, by its name. */
  rule: z.string(),
  severity: z.enum(SEVERITIES),
  /** The kind of the record; `plan` where it is about the plan as a whole. */
  kind: z.enum(['plan', ...(KIND_NAMES as [Kind, ...Kind[]])]),
  id: z.string(),
  text: z.string(),
  mends: z.array(mendSchema),
});

/** Something worth saying of what stands beside the channels; there are few, and they bring their mends along. */
export type BesideFinding = z.infer<typeof besideFindingSchema>;

export const findingCountSchema = z.object({
  severity: z.enum(SEVERITIES),
  n: z.int(),
  /** `1 stop`, `8 cautions`. */
  text: z.string(),
});
export type FindingCount = z.infer<typeof findingCountSchema>;
