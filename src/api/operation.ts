import { z } from 'zod';

/**
 * One operation of the HTTP API: what is parsed at the edge, what is answered, and what the OpenAPI document says of it. Both sides
 * have it: the server parses what is asked and answers what the types say, the browser parses what is answered.
 */
export interface Operation<P = unknown, Q = unknown, B = unknown, R = unknown> {
  method: 'GET' | 'POST' | 'DELETE';
  path: string;
  summary: string;
  params: z.ZodType<P>;
  query: z.ZodType<Q>;
  body: z.ZodType<B>;
  hasBody: boolean;
  status: number;
  /** The schema of JSON that is answered; `file` where bytes of that media type are. */
  response: z.ZodType<R>;
  file: string | null;
  /** The statuses of the problems that it may answer beside 400. */
  problems: number[];
  /** It changes something, and takes the key of the change. */
  changes: boolean;
  /** Members of the body that are secrets; the digest of a request is made without them. */
  secrets: readonly string[];
}

const nothing = z.object({});

interface Parts<P, Q, B> {
  params?: z.ZodType<P>;
  query?: z.ZodType<Q>;
  body?: z.ZodType<B>;
  status?: number;
  problems?: number[];
  secrets?: readonly string[];
}

function described<P, Q, B, R>(
  method: Operation['method'],
  path: string,
  summary: string,
  parts: Parts<P, Q, B>,
  answers: Pick<Operation<P, Q, B, R>, 'response' | 'file'>,
): Operation<P, Q, B, R> {
  return {
    method,
    path,
    summary,
    params: parts.params ?? (nothing as unknown as z.ZodType<P>),
    query: parts.query ?? (nothing as unknown as z.ZodType<Q>),
    body: parts.body ?? (z.undefined() as unknown as z.ZodType<B>),
    hasBody: parts.body !== undefined,
    status: parts.status ?? 200,
    problems: [...(parts.problems ?? []), ...(parts.body ? [413] : []), 503],
    // A file that is asked for with a body changes nothing.
    changes: method !== 'GET' && answers.file === null,
    secrets: parts.secrets ?? [],
    ...answers,
  };
}

/** An operation that answers JSON of that schema. */
export const operation = <R, P = object, Q = object, B = undefined>(
  method: Operation['method'],
  path: string,
  summary: string,
  { response, ...parts }: Parts<P, Q, B> & { response: z.ZodType<R> },
): Operation<P, Q, B, R> => described(method, path, summary, parts, { response, file: null });

/** The media type of an event stream. */
export const EVENT_STREAM = 'text/event-stream';

/** An answer that is not JSON. */
export interface FileAnswer {
  file: Uint8Array | string;
  type: string;
  name: string;
}

/** An answer that goes on: lines of an event stream, until whoever asked has gone. */
export interface StreamAnswer {
  stream: AsyncIterable<string>;
}

/** An operation that answers an event stream. */
export const streamOperation = <P = object, Q = object>(
  path: string,
  summary: string,
  parts: Parts<P, Q, undefined>,
): Operation<P, Q, undefined, StreamAnswer> =>
  described('GET', path, summary, parts, { response: z.custom<StreamAnswer>(), file: EVENT_STREAM });

/** An operation that answers a file. */
export const fileOperation = <P = object, Q = object>(
  path: string,
  summary: string,
  { type, ...parts }: Parts<P, Q, undefined> & { type: string },
): Operation<P, Q, undefined, FileAnswer> =>
  described('GET', path, summary, parts, { response: z.custom<FileAnswer>(), file: type });

/** An operation that answers a file of what it is sent, and changes nothing. */
export const fileOfOperation = <P = object, B = undefined>(
  path: string,
  summary: string,
  { type, ...parts }: Parts<P, object, B> & { type: string },
): Operation<P, object, B, FileAnswer> => ({
  ...described<P, object, B, FileAnswer>('POST', path, summary, parts, {
    response: z.custom<FileAnswer>(),
    file: type,
  }),
  changes: false,
});

/** What the database counts with ends here (integer of four bytes). */
export const revisionNumber = z.int().min(1).max(2_147_483_647, 'is beyond any revision');
