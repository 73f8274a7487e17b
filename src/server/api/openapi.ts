import { z } from 'zod';
import { api, type Operation } from '../../api';
import { problemSchema } from '../../core/problems.schema';
import { changeKeySchema, KEY_HEADER } from '../once';

const jsonSchema = (schema: z.ZodType, io: 'input' | 'output') => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Record<
    string,
    unknown
  >;
  return rest;
};

function parameters(schema: z.ZodType, place: 'path' | 'query') {
  const { properties = {}, required = [] } = jsonSchema(schema, 'input') as {
    properties?: Record<string, unknown>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, shape]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: shape,
  }));
}

/** Sent again with the same key, a change is answered again and not done again. */
const CHANGE_KEY = {
  name: KEY_HEADER,
  in: 'header',
  required: false,
  schema: jsonSchema(changeKeySchema, 'input'),
};

function describe(operation: Operation): object {
  const { response, file } = operation;
  const content =
    file !== null ? { [file]: {} } : { 'application/json': { schema: jsonSchema(response, 'output') } };
  const problem = {
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
  };
  return {
    summary: operation.summary,
    parameters: [
      ...parameters(operation.params, 'path'),
      ...parameters(operation.query, 'query'),
      ...(operation.changes ? [CHANGE_KEY] : []),
    ],
    ...(operation.hasBody && {
      requestBody: {
        required: true,
        content: { 'application/json': { schema: jsonSchema(operation.body, 'input') } },
      },
    }),
    responses: {
      [operation.status]: { description: 'Done', content },
      ...Object.fromEntries(
        [400, ...operation.problems].map((status) => [
          status,
          { description: 'A problem (RFC 9457)', ...problem },
        ]),
      ),
    },
  };
}

let made: Promise<Awaited<ReturnType<typeof make>>> | undefined;

/** The OpenAPI 3.1 document, made from the schemas that the routes parse with, once. */
export const openApiDocument = () => (made ??= make());

async function make() {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, operation] of Object.entries(api) as [string, Operation][]) {
    paths[operation.path] = {
      ...paths[operation.path],
      [operation.method.toLowerCase()]: { operationId: name, ...describe(operation) },
    };
    // Others are served in between.
    await new Promise((goOn) => setImmediate(goOn));
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Veridon',
      version: '1',
      description: 'Plans for radios, and the bench on which they are read and written.',
    },
    paths,
    components: { schemas: { Problem: jsonSchema(problemSchema, 'output') } },
  };
}
