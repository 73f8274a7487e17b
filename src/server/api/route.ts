import { type z } from 'zod';
import { parsing } from '../../core/parsing';
import { problemOf } from '../database';
import { inSteps } from '../in-steps';
import { changeKeySchema, KEY_HEADER, NOBODY, type Asker } from '../once';
import { JsonText } from '../json-text';
import { Problem, problemDocument } from '../problem';
import { shapeFault } from './json-shape';
import { EVENT_STREAM, type FileAnswer, type Operation, type StreamAnswer } from '../../api';

/** Longest body that is read, bytes. */
const LONGEST_BODY = 4_000_000;

const isFile = (value: unknown): value is FileAnswer =>
  typeof value === 'object' && value !== null && 'file' in value;

const isStream = (value: unknown): value is StreamAnswer =>
  typeof value === 'object' && value !== null && 'stream' in value;

/** A request, whichever way it came: by the door (src/door/api.mjs) or by the framework. */
export interface Incoming {
  method: string;
  /** Path and query. */
  url: string;
  header(name: string): string | null;
  /** The body; null where it has more bytes than `most`, of which the rest is not read. */
  bytes(most: number): Promise<Uint8Array | null>;
  /** Told when whoever asked has gone. */
  readonly gone: AbortSignal;
}

/** An answer, whichever way it goes. */
export interface Outgoing {
  status: number;
  headers: Record<string, string>;
  /** What goes on comes piece by piece. */
  body: string | Uint8Array | AsyncIterable<string>;
}

const jsonText = (
  status: number,
  body: string,
  headers: Record<string, string> = { 'Content-Type': 'application/json' },
): Outgoing => ({ status, headers: { 'Cache-Control': 'no-store', ...headers }, body });

const json = (status: number, value: unknown, headers?: Record<string, string>): Outgoing =>
  jsonText(status, JSON.stringify(value), headers);

export const problemAnswer = (problem: Problem, headers: Record<string, string> = {}): Outgoing =>
  json(problem.status, problemDocument(problem), { 'Content-Type': 'application/problem+json', ...headers });

/** What is wrong with an input, with the place of each fault. */
function invalid(where: string, issues: readonly z.core.$ZodIssue[]): Problem {
  const errors = issues
    .slice(0, 10)
    .map((issue) => ({ at: [where, ...issue.path].join('.'), what: issue.message }));
  const detail = errors.map(({ at, what }) => `${at}: ${what}`).join('; ');
  return new Problem(
    400,
    'invalid-input',
    'The input is not what is wanted',
    `${detail}. Nothing was changed.`,
    { errors },
  );
}

function parse<T>(schema: z.ZodType<T>, where: string, value: unknown): T {
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw invalid(where, parsed.error.issues);
  return parsed.data;
}

/** The same of a body, which may be large: others have their turn meanwhile. */
async function parseBody<T>(schema: z.ZodType<T>, body: unknown): Promise<T> {
  const parsed = await inSteps(parsing(schema, body));
  if ('issues' in parsed) throw invalid('body', parsed.issues);
  return parsed.data;
}

async function readBody(incoming: Incoming): Promise<unknown> {
  const bytes = await incoming.bytes(LONGEST_BODY);
  if (bytes === null)
    throw new Problem(
      413,
      'too-large',
      'Too much at once',
      `A body may have ${LONGEST_BODY / 1_000_000} MB. Send it in parts.`,
    );
  const fault = shapeFault(bytes);
  if (fault !== null)
    throw new Problem(
      400,
      'invalid-json',
      'The body is not what is wanted',
      `The body ${fault}. Nothing was changed.`,
    );
  try {
    return JSON.parse(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('utf8'));
  } catch {
    throw new Problem(
      400,
      'invalid-json',
      'The body is not JSON',
      'Send the body as JSON (RFC 8259). Nothing was changed.',
    );
  }
}

/** What a handler is given: what was parsed, who asks, and a signal for when whoever asked has gone. */
export interface Asked<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  asker: Asker;
  gone: AbortSignal;
}
export type Handler<P, Q, B, R> = (asked: Asked<P, Q, B>) => Promise<R | JsonText<R>> | R | JsonText<R>;

function askerOf(incoming: Incoming): Asker {
  const key = incoming.header(KEY_HEADER);
  return key === null ? NOBODY : { key: parse(changeKeySchema, KEY_HEADER, key) };
}

const queryOf = (url: string): Record<string, string> => {
  const at = url.indexOf('?');
  return at < 0 ? {} : Object.fromEntries(new URLSearchParams(url.slice(at + 1)));
};

/** Answers one request: parses at the edge what the operation says, calls the handler, answers JSON, a file, or a problem. */
export async function answer<P, Q, B, R>(
  operation: Operation<P, Q, B, R>,
  run: Handler<P, Q, B, R>,
  incoming: Incoming,
  pathParams: Record<string, string>,
): Promise<Outgoing> {
  try {
    const params = parse(operation.params, 'path', pathParams);
    const query = parse(operation.query, 'query', queryOf(incoming.url));
    const asker = operation.changes ? askerOf(incoming) : NOBODY;
    const body = operation.hasBody
      ? await parseBody(operation.body, await readBody(incoming))
      : (undefined as B);
    const asked = {
      params,
      query,
      body,
      asker,
      get gone() {
        return incoming.gone;
      },
    };
    const said = await run(asked);
    if (isStream(said))
      return {
        status: 200,
        headers: { 'Content-Type': EVENT_STREAM, 'Cache-Control': 'no-store' },
        body: said.stream,
      };
    if (said instanceof JsonText) return jsonText(operation.status, said.text);
    if (!isFile(said)) return json(operation.status, said);
    return {
      status: 200,
      headers: {
        'Content-Type': said.type,
        // A header holds plain letters alone; what a plan or a radio is called may have any.
        'Content-Disposition': `attachment; filename="${said.name.replace(/[^A-Za-z0-9._-]+/g, '-')}"`,
        'X-Content-Type-Options': 'nosniff',
        'Cache-Control': 'no-store',
      },
      body: said.file,
    };
  } catch (error) {
    const problem = problemOf(error);
    if (problem) return problemAnswer(problem);
    console.error(error);
    return problemAnswer(
      new Problem(
        500,
        'mistake',
        'Veridon made a mistake',
        'What you asked for was not done. Try again; if it happens again, restart Veridon.',
      ),
    );
  }
}
