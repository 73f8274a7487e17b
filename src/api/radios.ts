import { z } from 'zod';
import {
  batchSchema,
  benchSchema,
  CARD_ZIP_BYTES,
  cardOpenedSchema,
  copyComparisonSchema,
  copyIdSchema,
  copySchema,
  NOTE_LIMIT,
  jobRequestSchema,
  decisionSchema,
  jobSchema,
  liveRequestSchema,
  liveSchema,
  ownSettingsSchema,
  severalRequestSchema,
  writePreviewSchema,
} from '../core/bench';
import { besideChangeSchema } from '../core/compare';
import { editSchema, planIdSchema, radioIdSchema, settingValueSchema } from '../core/plan';
import { settingInfoSchema } from '../core/image/settings.schema';
import { text } from '../core/text.schema';
import { fileOperation, operation, revisionNumber, streamOperation } from './operation';
import { keptPlanSchema } from './plans';

const radioParams = z.object({ id: radioIdSchema });
const jobParams = z.object({ id: z.string().regex(/^jb_[a-z0-9]{4,40}$/, 'is not a job id') });

const unitValuesSchema = z.object({
  own: ownSettingsSchema,
  /** Newest first; null where a value was removed. */
  log: z.array(z.object({ key: z.string(), value: settingValueSchema.nullable(), at: z.string() })),
});

const byHandSchema = z.object({
  since: z.object({ at: z.string(), revision: z.int() }).nullable(),
  changes: z.array(
    z.object({
      place: z.string(),
      name: z.string(),
      what: z.enum(['changed', 'added', 'removed']),
      /** What the radio says now, in words. */
      radio: z.string(),
      /** What the plan says now, where it has gone another way since. */
      plan: z.string().nullable(),
      edit: editSchema,
    }),
  ),
  /** All that the plan has not changed otherwise, as one edit. */
  all: editSchema.nullable(),
  besides: z.array(besideChangeSchema),
});

/** The operations on the bench: radios, sealed copies, jobs. */
export const radioApi = {
  modelSettings: operation('GET', '/api/models/{id}/settings', 'What a plan can set on radios of a model', {
    params: z.object({ id: text(40) }),
    response: z.object({ settings: z.array(settingInfoSchema) }),
    problems: [404],
  }),
  radios: operation('GET', '/api/radios', 'The bench: ports, and every radio that has been on one', {
    response: benchSchema,
  }),
  choosePort: operation('POST', '/api/ports', 'Says which of the models that answer alike is on a port', {
    body: z.strictObject({ port: text(60), modelId: text(40) }),
    response: z.strictObject({}),
    problems: [409, 507],
  }),
  openCard: operation(
    'POST',
    '/api/cards',
    'Reads the card of a radio out of a zip, and seals what is on it',
    {
      body: z.strictObject({
        base64: z.base64().max(Math.ceil(CARD_ZIP_BYTES / 3) * 4, 'is longer than the zip of any card'),
      }),
      status: 201,
      response: cardOpenedSchema,
      problems: [413, 422, 507],
    },
  ),
  card: fileOperation('/api/radios/{id}/card', 'The card of a radio as a zip, with a plan on it', {
    params: radioParams,
    query: z.object({ plan: planIdSchema }),
    type: 'application/zip',
    problems: [404, 409, 410, 422],
  }),
  copies: operation('GET', '/api/radios/{id}/copies', 'The sealed copies of a radio, newest first', {
    params: radioParams,
    response: z.object({ copies: z.array(copySchema) }),
  }),
  writePreview: operation(
    'GET',
    '/api/radios/{id}/preview',
    'What a write of a plan would change in a radio',
    {
      params: radioParams,
      query: z.object({ plan: planIdSchema }),
      response: writePreviewSchema,
      problems: [404, 410],
    },
  ),
  byHand: operation(
    'GET',
    '/api/radios/{id}/by-hand',
    'What was done on the keys of a radio since a plan was written to it, as edits of that plan',
    {
      params: radioParams,
      query: z.object({ plan: planIdSchema }),
      response: byHandSchema,
      problems: [404, 410],
    },
  ),
  unitValues: operation(
    'GET',
    '/api/radios/{id}/own',
    'The values of one unit, such as its ID and its call sign, with what they were before',
    { params: radioParams, response: unitValuesSchema, problems: [404] },
  ),
  setUnitValues: operation(
    'POST',
    '/api/radios/{id}/own',
    'Sets the values of one unit; its next write gets them, whatever the plan sets',
    {
      params: radioParams,
      body: z.strictObject({ own: ownSettingsSchema }),
      response: unitValuesSchema,
      problems: [404, 422, 507],
    },
  ),
  copyImage: fileOperation('/api/copies/{id}/image', 'The bytes of a sealed copy', {
    params: z.object({ id: copyIdSchema }),
    type: 'application/octet-stream',
    problems: [404],
  }),
  copyNote: operation(
    'POST',
    '/api/copies/{id}/note',
    'Says something of a sealed copy, which itself never changes',
    {
      params: z.object({ id: copyIdSchema }),
      body: z.strictObject({ note: text(NOTE_LIMIT) }),
      response: copySchema,
      problems: [404, 507],
    },
  ),
  copyCompare: operation(
    'GET',
    '/api/copies/{id}/compare',
    'In what another sealed copy of its model, or a plan as it would be written, differs from a sealed copy',
    {
      params: z.object({ id: copyIdSchema }),
      query: z
        .object({
          copy: copyIdSchema.optional(),
          plan: planIdSchema.optional(),
          /** The plan as it was then; as it is where none is said. */
          revision: z.coerce.number().pipe(revisionNumber).optional(),
        })
        .refine(
          ({ copy, plan }) => (copy === undefined) !== (plan === undefined),
          'wants a copy or a plan to hold it against, and not both',
        ),
      response: copyComparisonSchema,
      problems: [404, 410, 422],
    },
  ),
  copyPlan: operation('POST', '/api/copies/{id}/plan', 'Makes a plan of what a sealed copy holds', {
    params: z.object({ id: copyIdSchema }),
    status: 201,
    response: keptPlanSchema,
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
  lives: operation('GET', '/api/live', 'Plans and radios that follow each other', {
    response: z.object({ lives: z.array(liveSchema) }),
  }),
  liveEvents: streamOperation(
    '/api/live-events',
    'The same each time that something of it changes, as an event stream',
    { problems: [429] },
  ),
  startLive: operation(
    'POST',
    '/api/live',
    'Puts a plan into a radio that has a live link, and lets them follow each other from then on',
    {
      body: liveRequestSchema,
      status: 201,
      response: liveSchema,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  endLive: operation('DELETE', '/api/live/{id}', 'Ends that a radio and its plan follow each other', {
    params: radioParams,
    response: liveSchema,
    problems: [404, 507],
  }),
  decideLive: operation(
    'POST',
    '/api/live/{id}/decide',
    'Says whose way is taken at a place where radio and plan each went their own',
    {
      params: radioParams,
      body: decisionSchema,
      response: liveSchema,
      problems: [404, 409, 410, 422, 507],
    },
  ),
  startSeveral: operation(
    'POST',
    '/api/several',
    'Writes one plan to several radios, each with its own settings',
    {
      body: severalRequestSchema,
      status: 202,
      response: batchSchema,
      problems: [404, 409, 410, 507],
    },
  ),
  several: operation('GET', '/api/several/{id}', 'What came of writing one plan to several radios', {
    params: z.object({ id: z.string().regex(/^bt_[a-z0-9]{4,40}$/, 'is not the id of a report') }),
    response: batchSchema,
    problems: [404, 410],
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
