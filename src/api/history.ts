import { z } from 'zod';
import { NEWS_KINDS } from '../core/directory';
import { WEEKS_LIMIT } from '../core/heard';
import { heardAtSchema, heardSchema } from '../core/heard/heard.schema';
import { channelIdSchema, editSchema, planIdSchema, planSchema } from '../core/plan';
import { text, wantedText } from '../core/text.schema';
import { operation, revisionNumber, streamOperation } from './operation';

const planParams = z.object({ id: planIdSchema });

const logRow = z.object({
  revision: z.int(),
  kind: z.enum(['edit', 'undo', 'redo']),
  label: z.string(),
  /** As it was logged, in the format of its day. */
  edit: z.looseObject({ name: z.string() }),
  at: z.string(),
});

/** Longest name of a mark. */
export const MARK_LIMIT = 60;
/** Most times that are said at once. */
export const HEARD_AT_ONCE = 10_000;
const markSchema = z.object({ revision: z.int(), name: z.string(), at: z.string() });
/** A revision that a person named. */
export type Mark = z.infer<typeof markSchema>;

/** The operations on what was done to a plan. */
const newsSchema = z.object({
  source: z.string(),
  ref: z.string(),
  updated: z.string(),
  kind: z.enum(NEWS_KINDS),
  channel: channelIdSchema.nullable(),
  name: z.string(),
  text: z.string(),
  edit: editSchema,
});

export const historyApi = {
  then: operation('GET', '/api/plans/{id}/then', 'What the plan was at an earlier revision', {
    params: planParams,
    query: z.object({ revision: z.coerce.number().pipe(revisionNumber) }),
    response: z.object({ plan: planSchema, revision: z.int() }),
    problems: [404, 409, 410, 422],
  }),
  events: streamOperation(
    '/api/plans/{id}/events',
    'Each revision of the plan as it is kept, as an event stream',
    {
      params: planParams,
      problems: [404, 410, 429],
    },
  ),
  marks: operation('GET', '/api/plans/{id}/marks', 'The revisions that a person named, the oldest first', {
    params: planParams,
    response: z.object({ marks: z.array(markSchema) }),
    problems: [404, 410],
  }),
  mark: operation('POST', '/api/plans/{id}/marks', 'Names a revision, or takes its name away', {
    params: planParams,
    body: z.strictObject({ revision: revisionNumber, name: wantedText(MARK_LIMIT).nullable() }),
    response: z.object({ marks: z.array(markSchema) }),
    problems: [404, 410, 422, 507],
  }),
  heard: operation('GET', '/api/plans/{id}/heard', 'Which channels were heard, when last and how often', {
    params: planParams,
    query: z.object({
      /** So many weeks back it is counted by week. */
      weeks: z.coerce.number().pipe(z.int().min(0).max(WEEKS_LIMIT)).default(0),
    }),
    response: z.object({ heard: z.array(heardSchema) }),
    problems: [404, 410],
  }),
  news: operation(
    'GET',
    '/api/plans/{id}/news',
    'What directories say now that is not as the plan has it, each as an edit',
    {
      params: planParams,
      query: z.object({
        /** Whether the directories are asked, or only what is kept of them is looked at. */
        ask: z.stringbool().default(true),
      }),
      response: z.object({
        revision: z.int(),
        news: z.array(newsSchema),
        /** How many were looked at before and left. */
        left: z.int(),
        troubles: z.array(z.object({ source: z.string(), name: z.string(), trouble: z.string() })),
      }),
      problems: [404, 410, 422],
    },
  ),
  leaveNews: operation(
    'POST',
    '/api/plans/{id}/news',
    'Leaves news as they are until the directory says something else',
    {
      params: planParams,
      body: z.strictObject({
        leave: z
          .array(z.strictObject({ source: text(40), ref: text(80), updated: text(60) }))
          .max(5000)
          .default([]),
        /** Forgets what was left before. */
        again: z.boolean().default(false),
      }),
      response: z.object({ left: z.int() }),
      problems: [404, 410, 507],
    },
  ),
  hear: operation(
    'POST',
    '/api/plans/{id}/heard',
    'Says when channels were heard, or that they were not after all',
    {
      params: planParams,
      body: z.strictObject({
        put: z.array(heardAtSchema).max(HEARD_AT_ONCE).default([]),
        drop: z.array(heardAtSchema).max(HEARD_AT_ONCE).default([]),
      }),
      response: z.object({
        /** How many are new; the same channel at the same moment is known already. */
        added: z.int(),
        dropped: z.int(),
      }),
      problems: [404, 410, 422, 507],
    },
  ),
  edits: operation('GET', '/api/plans/{id}/edits', 'The log of a plan, newest first', {
    params: planParams,
    query: z.object({
      before: z.coerce.number().pipe(revisionNumber).optional(),
      limit: z.coerce.number().pipe(z.int().min(1).max(500)).default(100),
      /** Only those in whose label this stands. */
      search: text(100).optional(),
      /** Only those that name this channel. */
      channel: channelIdSchema.optional(),
    }),
    response: z.object({
      edits: z.array(logRow),
      /** What to ask for with `before` to get the page after this one; null on the last. */
      next: z.int().nullable(),
    }),
    problems: [404, 410],
  }),
};
