import { z } from 'zod';
import { PAPERS } from '../core/fit';
import { OUT_FORMATS } from '../core/interchange';
import { CHANNEL_LIMIT, channelIdSchema, planIdSchema } from '../core/plan';
import { text, wantedText } from '../core/text.schema';
import { fileOfOperation, fileOperation, operation } from './operation';

const planParams = z.object({ id: planIdSchema });

const importAnswer = z.object({
  plan: planIdSchema,
  revision: z.int(),
  /** What was done, in words; null where nothing was. */
  label: z.string().nullable(),
  placed: z.int(),
  /** How many found no slot and wait left over. */
  over: z.int(),
  /** Cells that were not understood, of channels that came about all the same. */
  odd: z.array(z.object({ channel: z.string(), column: z.string(), text: z.string(), reason: z.string() })),
  /** Rows of which no channel came. */
  refused: z.array(z.object({ line: z.int(), text: z.string(), reason: z.string() })),
});
export type ImportAnswer = z.infer<typeof importAnswer>;

/** The operations that take files in and give them out. */
export const fileApi = {
  importFile: operation(
    'POST',
    '/api/import',
    'Takes the stations of a file (CSV in any dialect, XLSX, GeoJSON, GPX, KML, a plan of ours) into a plan, or as a new one',
    {
      body: z.strictObject({
        /** Into which plan; without it a new one comes about. */
        plan: planIdSchema.optional(),
        /** The radio that a new plan is for, where the file is no plan that says so. */
        modelId: wantedText(40).optional(),
        /** Whether channels go into the slots that the file names, as far as those are free. */
        slots: z.enum(['as in the file', 'next free']).default('as in the file'),
        /** What a new plan is called. */
        name: text(200).optional(),
        base64: z.base64().max(3_900_000, 'is longer than what is taken at once; send it in parts'),
      }),
      response: importAnswer,
      problems: [404, 409, 410, 413, 422, 507],
    },
  ),
  export: fileOperation(
    '/api/plans/{id}/export',
    'The plan as a file: `json` whole; the others its channels, of which `gpx` has those alone whose place is known',
    {
      params: planParams,
      query: z.object({ as: z.enum(OUT_FORMATS).default('json') }),
      type: 'application/octet-stream',
      problems: [404, 410],
    },
  ),
  exportSome: fileOfOperation('/api/plans/{id}/export', 'Some of its channels as a file', {
    params: planParams,
    body: z.strictObject({
      as: z.enum(OUT_FORMATS),
      ids: z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT),
    }),
    type: 'application/octet-stream',
    problems: [404, 410, 422],
  }),
  paper: fileOperation(
    '/api/plans/{id}/paper',
    'The plan on paper, as PDF, where this machine has a Chromium',
    {
      params: planParams,
      query: z.object({ as: z.enum(PAPERS).default('card') }),
      type: 'application/pdf',
      problems: [404, 410, 501, 502],
    },
  ),
  planFormat: operation('GET', '/api/plan-schema.json', 'What a plan’s own format is, as JSON Schema', {
    response: z.looseObject({}),
  }),
};
