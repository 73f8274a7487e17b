import { z } from 'zod';
import {
  benchSchema,
  copyIdSchema,
  copySchema,
  jobRequestSchema,
  jobSchema,
  serialSchema,
  writePreviewSchema,
} from '../../core/bench';
import { planIdSchema, planSchema, detailsSchema, editSchema, ownerSchema } from '../../core/plan';
import { text } from '../../core/text';
import { SEVERITIES } from '../../core/check';

/** One operation of the HTTP API: what is parsed at the edge, what is answered, and what the OpenAPI document says of it. */
export interface Operation<P = unknown, Q = unknown, B = unknown> {
  method: 'GET' | 'POST' | 'DELETE';
  path: string;
  summary: string;
  params: z.ZodType<P>;
  query: z.ZodType<Q>;
  body: z.ZodType<B>;
  hasBody: boolean;
  status: number;
  /** A schema for JSON, or a media type for anything else. */
  response: z.ZodType | string;
  /** The statuses of the problems that it may answer beside 400. */
  problems: number[];
  /** It changes something, and takes the key of the change (once.ts). */
  changes: boolean;
}

const nothing = z.object({});

function operation<P = object, Q = object, B = undefined>(
  method: Operation['method'],
  path: string,
  summary: string,
  parts: {
    params?: z.ZodType<P>;
    query?: z.ZodType<Q>;
    body?: z.ZodType<B>;
    status?: number;
    response: z.ZodType | string;
    problems?: number[];
  },
): Operation<P, Q, B> {
  return {
    method,
    path,
    summary,
    params: parts.params ?? (nothing as unknown as z.ZodType<P>),
    query: parts.query ?? (nothing as unknown as z.ZodType<Q>),
    body: parts.body ?? (z.undefined() as unknown as z.ZodType<B>),
    hasBody: parts.body !== undefined,
    status: parts.status ?? 200,
    response: parts.response,
    problems: [...(parts.problems ?? []), 503],
    changes: method !== 'GET',
  };
}

const planParams = z.object({ id: planIdSchema });
const modelQuery = z.object({ model: text(40).optional() });
const serialParams = z.object({ serial: serialSchema });
const jobParams = z.object({ id: z.string().regex(/^jb_[a-z0-9]{4,40}$/, 'is not a job id') });

const keptPlan = z.object({
  plan: planSchema,
  revision: z.int(),
  undo: z.string().nullable(),
  redo: z.string().nullable(),
});
const changeAnswer = z.object({
  revision: z.int(),
  label: z.string(),
  undo: z.string().nullable(),
  redo: z.string().nullable(),
  /** The edits that bring the sender's plan along, from the revision that it named, where its own edit is not all there is. */
  edits: z.array(editSchema).optional(),
});
/** What the database counts with ends here (integer of four bytes). */
const revisionNumber = z.int().min(1).max(2_147_483_647, 'is beyond any revision');
/** The revision that the sender has, from which the answer brings it along. */
const baseQuery = z.object({ base: z.coerce.number().pipe(revisionNumber).optional() });
const findings = z.array(
  z.looseObject({
    rule: z.string(),
    severity: z.enum(SEVERITIES),
    id: z.string(),
    field: z.string(),
    text: z.string(),
  }),
);

export const api = {
  openapi: operation('GET', '/api/openapi.json', 'This document', { response: z.looseObject({}) }),
  health: operation('GET', '/api/health', 'Whether the application and its data are in order', {
    response: z.object({ status: z.literal('ok'), database: z.enum(['pglite', 'server']) }),
    problems: [507],
  }),
  models: operation('GET', '/api/models', 'The radio models, found by any name under which they are sold', {
    query: z.object({ q: text(60).default('') }),
    response: z.object({
      models: z.array(z.looseObject({ id: z.string(), name: z.string(), maker: z.string() })),
    }),
  }),
  plans: operation('GET', '/api/plans', 'All plans, the last changed first; or those that were removed', {
    query: z.object({ removed: z.stringbool().default(false) }),
    response: z.object({
      plans: z.array(z.looseObject({ id: z.string(), name: z.string(), revision: z.int() })),
    }),
  }),
  createPlan: operation('POST', '/api/plans', 'Makes an empty plan', {
    body: detailsSchema.extend({ owner: ownerSchema.partial().default({}) }),
    status: 201,
    response: keptPlan,
    problems: [422, 507],
  }),
  plan: operation('GET', '/api/plans/{id}', 'A plan with its revision', {
    params: planParams,
    response: keptPlan,
    problems: [404, 409, 410],
  }),
  removePlan: operation('DELETE', '/api/plans/{id}', 'Removes a plan; it can be brought back', {
    params: planParams,
    response: z.object({ id: z.string(), name: z.string() }),
    problems: [404, 422, 507],
  }),
  recoverPlan: operation('POST', '/api/plans/{id}/recover', 'Brings a removed plan back, with its log', {
    params: planParams,
    response: z.object({ id: z.string(), name: z.string() }),
    problems: [404, 422, 507],
  }),
  duplicatePlan: operation(
    'POST',
    '/api/plans/{id}/duplicate',
    'Makes a plan like this one, or like what it was at an earlier revision',
    {
      params: planParams,
      query: z.object({ revision: z.coerce.number().pipe(revisionNumber).optional() }),
      status: 201,
      response: keptPlan,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  document: operation(
    'GET',
    '/api/plans/{id}/document',
    'The document as it is kept, also where it cannot be read as a plan',
    { params: planParams, response: 'application/octet-stream', problems: [404, 410] },
  ),
  edits: operation('GET', '/api/plans/{id}/edits', 'The log of a plan, newest first', {
    params: planParams,
    query: z.object({
      before: z.coerce.number().pipe(revisionNumber).optional(),
      limit: z.coerce.number().pipe(z.int().min(1).max(500)).default(100),
    }),
    response: z.object({
      edits: z.array(
        z.looseObject({ revision: z.int(), kind: z.string(), label: z.string(), at: z.string() }),
      ),
      /** What to ask for with `before` to get the page after this one; null on the last. */
      next: z.int().nullable(),
    }),
    problems: [404, 410],
  }),
  edit: operation(
    'POST',
    '/api/plans/{id}/edits',
    'Applies an edit, made on revision `base`; answered once it is on disk',
    {
      params: planParams,
      body: z.strictObject({ base: revisionNumber, edit: editSchema }),
      response: changeAnswer,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  undo: operation('POST', '/api/plans/{id}/undo', 'Takes the last edit back', {
    params: planParams,
    query: baseQuery,
    response: changeAnswer,
    problems: [404, 409, 410, 507],
  }),
  redo: operation('POST', '/api/plans/{id}/redo', 'Takes the last undo back', {
    params: planParams,
    query: baseQuery,
    response: changeAnswer,
    problems: [404, 409, 410, 507],
  }),
  goBack: operation(
    'POST',
    '/api/plans/{id}/go-back',
    'Makes the plan what it was at an earlier revision, as an edit on revision `base`',
    {
      params: planParams,
      body: z.strictObject({ base: revisionNumber, revision: revisionNumber }),
      response: changeAnswer,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  fit: operation('GET', '/api/plans/{id}/fit', 'The plan worked out for a model', {
    params: planParams,
    query: modelQuery,
    response: z.object({ revision: z.int(), fit: z.looseObject({ modelId: z.string() }) }),
    problems: [404, 410, 422],
  }),
  check: operation('GET', '/api/plans/{id}/check', 'What Check finds: stops, cautions, hints', {
    params: planParams,
    query: modelQuery,
    response: z.object({ revision: z.int(), findings, heldBack: z.array(z.unknown()) }),
    problems: [404, 410, 422],
  }),
  neighbours: operation(
    'GET',
    '/api/plans/{id}/neighbours',
    'Repeaters that a directory knows where the plan is used',
    {
      params: planParams,
      response: z.object({
        neighbours: z.array(
          z.object({ name: z.string(), output: z.int(), input: z.int(), lat: z.number(), lon: z.number() }),
        ),
      }),
      problems: [404, 410],
    },
  ),
  export: operation(
    'GET',
    '/api/plans/{id}/export',
    'The plan as a file: `json` whole, `csv` for a spreadsheet',
    {
      params: planParams,
      query: z.object({ as: z.enum(['json', 'csv']).default('json') }),
      response: 'application/octet-stream',
      problems: [404, 410],
    },
  ),
  directories: operation('GET', '/api/directories', 'The directories that can be searched', {
    response: z.object({ directories: z.array(z.looseObject({ id: z.string(), name: z.string() })) }),
  }),
  places: operation('GET', '/api/directories/relay-register/places', 'Places by name', {
    query: z.object({ q: text(60).default('') }),
    response: z.object({
      places: z.array(z.looseObject({ name: z.string(), lat: z.number(), lon: z.number() })),
      /** Where no place has that name: the one that is surely meant; the others are those nearest in spelling. */
      meant: z.string().nullable(),
    }),
    problems: [502, 504],
  }),
  entries: operation(
    'GET',
    '/api/directories/relay-register/entries',
    'Entries around a point, nearest first, held against a plan and a model',
    {
      query: z.object({
        lat: z.coerce.number().min(-90).max(90),
        lon: z.coerce.number().min(-180).max(180),
        radius: z.coerce.number().min(1, 'is under 1 km').max(500, 'is over 500 km'),
        plan: planIdSchema.optional(),
        model: text(40).optional(),
      }),
      response: z.object({
        candidates: z.array(z.looseObject({ distance: z.number() })),
        skipped: z.array(z.string()),
        beyond: z.int(),
      }),
      problems: [404, 410, 422, 502, 504],
    },
  ),
  radios: operation('GET', '/api/radios', 'The bench: ports, and every radio that has been on one', {
    response: benchSchema,
  }),
  copies: operation('GET', '/api/radios/{serial}/copies', 'The sealed copies of a radio, newest first', {
    params: serialParams,
    response: z.object({ copies: z.array(copySchema) }),
  }),
  writePreview: operation(
    'GET',
    '/api/radios/{serial}/preview',
    'What a write of a plan would change in a radio',
    {
      params: serialParams,
      query: z.object({ plan: planIdSchema }),
      response: writePreviewSchema,
      problems: [404, 410],
    },
  ),
  copyImage: operation('GET', '/api/copies/{id}/image', 'The bytes of a sealed copy', {
    params: z.object({ id: copyIdSchema }),
    response: 'application/octet-stream',
    problems: [404],
  }),
  copyPlan: operation('POST', '/api/copies/{id}/plan', 'Makes a plan of what a sealed copy holds', {
    params: z.object({ id: copyIdSchema }),
    status: 201,
    response: keptPlan,
    problems: [404, 422, 507],
  }),
  jobs: operation('GET', '/api/jobs', 'Reads and writes, newest first', {
    response: z.object({ jobs: z.array(jobSchema) }),
  }),
  startJob: operation('POST', '/api/jobs', 'Starts reading, writing or restoring a radio', {
    body: jobRequestSchema,
    status: 202,
    response: jobSchema,
    problems: [404, 409, 410, 422, 507],
  }),
  job: operation('GET', '/api/jobs/{id}', 'A job with its progress', {
    params: jobParams,
    response: jobSchema,
    problems: [404],
  }),
  stopJob: operation('DELETE', '/api/jobs/{id}', 'Stops a job', {
    params: jobParams,
    response: jobSchema,
    problems: [404, 409],
  }),
};
