import { z } from 'zod';
import { channelIdSchema, editSchema, OWN_KINDS, type OwnKind } from '../plan';
import { SEVERITIES, FINDING_FIELDS } from './finding';

export const mendSchema = z.object({ label: z.string(), edit: editSchema });

/** An edit that takes a finding away, and what the button says. */
export type Mend = z.infer<typeof mendSchema>;

const said = {
  /** The rule's id, the name of its file. */
  rule: z.string(),
  severity: z.enum(SEVERITIES),
  /** What happens on air, in one short sentence, without blame. */
  text: z.string(),
  /** The table that decided, where one did. */
  source: z.string().optional(),
};

export const channelFindingSchema = z.object({
  ...said,
  kind: z.literal('channel'),
  id: channelIdSchema,
  field: z.enum(FINDING_FIELDS),
});

export const recordFindingSchema = z.object({
  ...said,
  /** The kind of the record; `plan` where it is about the plan as a whole. */
  kind: z.enum(['plan', ...(OWN_KINDS as [OwnKind, ...OwnKind[]])]),
  id: z.string(),
});

/** Something worth saying of one field of a channel. */
export type FindingOfChannel = z.infer<typeof channelFindingSchema>;

/** Something worth saying of another record, or of the plan as a whole. */
export type FindingOfRecord = z.infer<typeof recordFindingSchema>;

export const findingSchema = z.discriminatedUnion('kind', [channelFindingSchema, recordFindingSchema]);

/** Something worth saying of a plan. Its mends are made when they are asked for: `mendsOf`. */
export type Finding = FindingOfChannel | FindingOfRecord;

const mends = { mends: z.array(mendSchema) };
export const mendableFindingSchema = z.discriminatedUnion('kind', [
  channelFindingSchema.extend(mends),
  recordFindingSchema.extend(mends),
]);

/** A finding with its mends. */
export type MendableFinding = Finding & { mends: Mend[] };

export const findingCountSchema = z.object({
  severity: z.enum(SEVERITIES),
  n: z.int(),
  /** `1 stop`, `8 cautions`. */
  text: z.string(),
});
export type FindingCount = z.infer<typeof findingCountSchema>;
