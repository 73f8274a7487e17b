import { z } from 'zod';
import { mendableFindingSchema, findingCountSchema, neighbourSchema } from '../core/check';
import { fitSchema } from '../core/fit';
import {
  channelIdSchema,
  detailsSchema,
  editSchema,
  KIND_NAMES,
  LIST_LIMIT,
  ownerSchema,
  PLAN_NAME_LIMIT,
  planIdSchema,
  planSchema,
  SLOT_LIMIT,
  ZONE_NAME_LIMIT,
} from '../core/plan';
import { REGIONS } from '../core/radio';
import { text, wantedText } from '../core/text.schema';
import { historyApi } from './history';
import { fileOperation, operation, revisionNumber } from './operation';

const planParams = z.object({ id: planIdSchema });
const modelQuery = z.object({ model: text(40).optional() });

export const keptPlanSchema = z.object({
  plan: planSchema,
  revision: z.int(),
  /** What undo would take back, and redo do again; null where there is nothing. */
  undo: z.string().nullable(),
  redo: z.string().nullable(),
});
/** A plan as the server keeps it. */
export type KeptPlan = z.infer<typeof keptPlanSchema>;

const changeAnswer = z.object({
  revision: z.int(),
  label: z.string(),
  undo: z.string().nullable(),
  redo: z.string().nullable(),
  /** The edits that bring the sender's plan along, from the revision that it named, where its own edit is not all there is. */
  edits: z.array(editSchema).optional(),
});
/** What a change of a plan came to. */
export type ChangeAnswer = z.infer<typeof changeAnswer>;

/** The revision that the sender has, from which the answer brings it along. */
const baseQuery = z.object({ base: z.coerce.number().pipe(revisionNumber).optional() });

const planRow = z.object({
  id: planIdSchema,
  name: z.string(),
  modelId: z.string(),
  /** Maker and name, for people. */
  model: z.string(),
  region: z.enum(REGIONS),
  slots: z.int(),
  channels: z.int(),
  /** The receive frequencies, Hz. */
  receive: z.array(z.int()),
  findings: z.array(findingCountSchema),
  /** True while what is told of its content is not of its newest revision yet: it is being worked out. */
  pending: z.boolean(),
  revision: z.int(),
  updatedAt: z.string(),
  /** Why it cannot be opened, in a sentence; null where it can. */
  trouble: z.string().nullable(),
  /** The newest revision that can be read, where the newest of all cannot. */
  readable: z.int().nullable(),
  /** Into which radio it was last written, and at which revision. */
  written: z.object({ called: z.string(), at: z.string(), revision: z.int().nullable() }).nullable(),
});
/** Plans that are listed at once. */
export const PLANS_AT_ONCE = 50;

/** What the list says of a plan. */
export type PlanRow = z.infer<typeof planRow>;

/** A plan of the same family, with the revision of it that has been looked at and the newest. */
const relative = {
  id: planIdSchema,
  name: z.string(),
  modelId: z.string(),
  seen: z.int(),
  revision: z.int(),
};

const offered = {
  kind: z.enum(KIND_NAMES),
  what: z.enum(['changed', 'added', 'removed']),
  text: z.string(),
  clash: z.boolean(),
  edit: editSchema,
};
const offersSchema = z.object({
  offers: z.array(z.object({ ...offered, id: z.string(), name: z.string() })),
  /** The same, those that are alike but for the record together. */
  groups: z.array(z.object({ ...offered, ids: z.array(z.string()) })),
  /** All that does not clash, as one edit; null where that is nothing. */
  all: editSchema.nullable(),
  /** How many more there are; they are offered when these are taken or left. */
  more: z.int(),
});

/** The operations on plans. */
export const planApi = {
  plans: operation('GET', '/api/plans', 'Plans, the last changed first; or those that were removed', {
    query: z.object({
      removed: z.stringbool().default(false),
      from: z.coerce.number().pipe(z.int().min(0).max(1_000_000)).default(0),
      count: z.coerce.number().pipe(z.int().min(1).max(200)).default(PLANS_AT_ONCE),
    }),
    response: z.object({
      plans: z.array(planRow),
      /** How many there are in all. */
      total: z.int(),
    }),
  }),
  planNames: operation('GET', '/api/plan-names', 'All plans by their names, the last changed first', {
    response: z.object({
      plans: z.array(
        z.object({
          id: planIdSchema,
          name: z.string(),
          modelId: z.string(),
          model: z.string(),
          trouble: z.string().nullable(),
        }),
      ),
    }),
  }),
  createPlan: operation('POST', '/api/plans', 'Makes an empty plan', {
    body: detailsSchema.extend({ owner: ownerSchema.partial().default({}) }),
    status: 201,
    response: keptPlanSchema,
    problems: [422, 507],
  }),
  plan: operation('GET', '/api/plans/{id}', 'A plan with its revision', {
    params: planParams,
    response: keptPlanSchema,
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
      response: keptPlanSchema,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  movePlan: operation('POST', '/api/plans/{id}/move', 'Makes a plan for another model of this one', {
    params: planParams,
    body: z.object({
      modelId: wantedText(40),
      name: wantedText(PLAN_NAME_LIMIT),
      /** Which band goes to which of the model’s lists, by the band’s name. */
      sides: z
        .record(
          text(40),
          z
            .int()
            .min(0)
            .max(LIST_LIMIT - 1),
        )
        .default({}),
      /** The slot to begin with on each list; where it is not said each channel keeps its own as far as it can. */
      from: z.int().min(0).max(SLOT_LIMIT).optional(),
      /** The name of a new bank that takes all of them. */
      bank: wantedText(ZONE_NAME_LIMIT).optional(),
    }),
    status: 201,
    response: keptPlanSchema,
    problems: [404, 409, 410, 422, 507],
  }),
  openImage: operation(
    'POST',
    '/api/images',
    'Opens a radio’s image, or the files of its card, as a new plan',
    {
      body: z.object({
        files: z
          .array(z.object({ name: text(200), base64: z.base64().max(400_000, 'is longer than any image') }))
          .min(1)
          .max(16),
        /** Opens what can be read of one that is damaged. */
        rescue: z.boolean().default(false),
      }),
      status: 201,
      /** Without a checksum in the files, or the list of a card, nothing proves that they are as the radio wrote them. */
      response: keptPlanSchema.extend({ proven: z.boolean() }),
      problems: [413, 422, 507],
    },
  ),
  imageFiles: operation(
    'GET',
    '/api/plans/{id}/image-files',
    'The files as which the plan is saved as an image',
    {
      params: planParams,
      response: z.object({
        model: z.string(),
        heldBack: z.int(),
        files: z.array(z.object({ part: z.string().nullable(), bytes: z.int() })),
      }),
      problems: [404, 409, 410, 422],
    },
  ),
  image: fileOperation(
    '/api/plans/{id}/image',
    'The plan as an image of its radio, or one file of its card',
    {
      params: planParams,
      query: z.object({ part: text(40).optional() }),
      type: 'application/octet-stream',
      problems: [404, 409, 410, 422],
    },
  ),
  imageBytes: operation(
    'GET',
    '/api/plans/{id}/image-bytes',
    'The plan’s image byte by byte: as it is, as it will be, whose each is',
    {
      params: planParams,
      query: z.object({ from: z.coerce.number().pipe(z.int().min(0).max(1_000_000)).default(0) }),
      response: z.object({
        length: z.int(),
        from: z.int(),
        /** Bytes that differ in the whole image. */
        changed: z.int(),
        /** Where they are; the first of them where they are many. */
        changes: z.array(z.int()),
        areas: z.array(
          z.object({
            from: z.int(),
            bytes: z.int(),
            label: z.string(),
            owner: z.enum(['ours', 'unit', 'volatile', 'unknown', 'checksum']),
            /** Bytes that differ in it. */
            changed: z.int(),
          }),
        ),
        /** Hexadecimal, two figures a byte, as is what follows. */
        before: z.string(),
        after: z.string(),
        /** The bits that are Veridon’s to write. */
        ours: z.string(),
        fields: z.array(z.object({ at: z.int(), label: z.string() })),
      }),
      problems: [404, 409, 410, 422],
    },
  ),
  offers: operation(
    'GET',
    '/api/plans/{id}/offers',
    'What changed in the plan that this one was made of, as edits; and the plans made of this one',
    {
      params: planParams,
      response: offersSchema.extend({
        /** null where it was made of none, or where that is not there any more. */
        source: z.object(relative).nullable(),
        own: z.array(z.object({ id: z.string(), name: z.string(), text: z.string() })),
        /** Plans that were made of this one. */
        made: z.array(z.object({ ...relative, differences: z.int() })),
      }),
      problems: [404, 409, 410],
    },
  ),
  offersFrom: operation(
    'GET',
    '/api/plans/{id}/offers/{from}',
    'What changed in a plan that was made of this one, as edits of this one',
    {
      params: planParams.extend({ from: planIdSchema }),
      response: offersSchema.extend({ revision: z.int() }),
      problems: [404, 409, 410, 422],
    },
  ),
  document: fileOperation(
    '/api/plans/{id}/document',
    'The document as it is kept, also where it cannot be read as a plan',
    {
      params: planParams,
      type: 'application/json',
      problems: [404, 410],
    },
  ),
  ...historyApi,
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
    response: z.object({ revision: z.int(), fit: fitSchema }),
    problems: [404, 410, 422],
  }),
  check: operation('GET', '/api/plans/{id}/check', 'What Check finds: stops, cautions, hints', {
    params: planParams,
    query: modelQuery.extend({
      from: z.coerce.number().pipe(z.int().min(0).max(1_000_000)).default(0),
      count: z.coerce.number().pipe(z.int().min(1).max(1000)).default(200),
      /** Whether the ways out of each finding are told. */
      mends: z.stringbool().default(false),
    }),
    response: z.object({
      revision: z.int(),
      /** How many findings there are in all. */
      total: z.int(),
      findings: z.array(mendableFindingSchema),
      heldBack: z.array(z.object({ id: channelIdSchema, reasons: z.array(z.string()) })),
    }),
    problems: [404, 410, 422],
  }),
  neighbours: operation(
    'GET',
    '/api/plans/{id}/neighbours',
    'Repeaters that a directory knows where the plan is used',
    {
      params: planParams,
      response: z.object({
        neighbours: z.array(neighbourSchema),
      }),
      problems: [404, 410],
    },
  ),
};
