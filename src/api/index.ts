import { z } from 'zod';
import { modelSchema } from '../core/models';
import { text } from '../core/text.schema';
import { directoryApi } from './directories';
import { fileApi } from './files';
import { keepingApi } from './keeping';
import { operation } from './operation';
import { peopleApi } from './people';
import { planApi } from './plans';
import { radioApi } from './radios';

/** Every operation of the HTTP API by its name. Screens import those that they use, from the file that has them. */
export const api = {
  openapi: operation('GET', '/api/openapi.json', 'This document', { response: z.looseObject({}) }),
  health: operation('GET', '/api/health', 'Whether the application and its data are in order', {
    response: z.object({
      status: z.literal('ok'),
      database: z.enum(['pglite', 'server']),
      /** Why nothing can be changed at the moment, in a sentence; null where it can. */
      readOnly: z.string().nullable(),
    }),
    problems: [507],
  }),
  models: operation('GET', '/api/models', 'The radio models, found by any name under which they are sold', {
    query: z.object({ q: text(60).default('') }),
    response: z.object({
      models: z.array(modelSchema),
    }),
  }),
  ...planApi,
  ...fileApi,
  ...directoryApi,
  ...radioApi,
  ...keepingApi,
  ...peopleApi,
};

export type * from './directories';
export type * from './files';
export type * from './keeping';
export * from './operation';
export type * from './plans';
export type * from './radios';
