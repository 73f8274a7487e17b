import { type z } from 'zod';
import { problemOf } from '../database';
import { changeKeySchema, KEY_HEADER, NOBODY, type Asker } from '../once';
import { Problem, problemDocument } from '../problem';
import type { FileAnswer, Operation } from '../../api';

/** Longest body that is read, bytes. */
const LONGEST_BODY = 4_000_000;

const isFile = (value: unknown): value is FileAnswer =>
  typeof value === 'object' && value !== null && 'file' in value;

export function problemResponse(problem: Problem, headers: Record<string, string> = {}): Response {
  return Response.json(problemDocument(problem), {
    status: problem.status,
    headers: { 'Content-Type': 'application/problem+json', 'Cache-Control': 'no-store', ...headers },
  });
}

/** What is wrong with an input, with the place of each fault. */
function invalid(where: string, error: z.ZodError): Problem {
  const errors = error.issues
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
  if (!parsed.success) throw invalid(where, parsed.error);
  return parsed.data;
}

async function readBody(request: Request): Promise<unknown> {
  const reader = request.body?.getReader();
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
    if (done || !value) break;
    bytes += value.length;
    if (bytes > LONGEST_BODY) {
      await reader!.cancel();
      throw new Problem(
        413,
        'too-large',
        'Too much at once',
        `A body may have ${LONGEST_BODY / 1_000_000} MB. Send it in parts.`,
      );
    }
    chunks.push(value);
  }
  try {
    return JSON.parse(Buffer.concat(chunks).toString('utf8'));
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
export type Handler<P, Q, B, R> = (asked: Asked<P, Q, B>) => Promise<R> | R;

function askerOf(request: Request): Asker {
  const key = request.headers.get(KEY_HEADER);
  return key === null ? NOBODY : { key: parse(changeKeySchema, KEY_HEADER, key) };
}

/** Answers one request: parses at the edge what the operation says, calls the handler, answers JSON, a file, or a problem. */
export async function answer<P, Q, B, R>(
  operation: Operation<P, Q, B, R>,
  run: Handler<P, Q, B, R>,
  request: Request,
  pathParams: Record<string, string>,
): Promise<Response> {
  try {
    const params = parse(operation.params, 'path', pathParams);
    const query = parse(operation.query, 'query', Object.fromEntries(new URL(request.url).searchParams));
    const asker = operation.changes ? askerOf(request) : NOBODY;
    const body = operation.hasBody
      ? parse(operation.body, 'body', await readBody(request))
      : (undefined as B);
    const said = await run({ params, query, body, asker, gone: request.signal });
    if (isFile(said))
      return new Response(said.file as BodyInit, {
        headers: {
          'Content-Type': said.type,
          'Content-Disposition': `attachment; filename="${said.name}"`,
          'X-Content-Type-Options': 'nosniff',
          'Cache-Control': 'no-store',
        },
      });
    return Response.json(said, { status: operation.status, headers: { 'Cache-Control': 'no-store' } });
  } catch (error) {
    const problem = problemOf(error);
    if (problem) return problemResponse(problem);
    console.error(error);
    return problemResponse(
      new Problem(
        500,
        'mistake',
        'Veridon made a mistake',
        'What you asked for was not done. Try again; if it happens again, restart Veridon.',
      ),
    );
  }
}
