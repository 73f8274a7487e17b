import { kindOf, problemSchema, type ProblemKind } from '../core/problems';
import type { Operation } from './operation';

/** What the server said when it refused: its problem document's sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    /** null where it was no problem document that came. */
    readonly kind: ProblemKind | null,
    message: string,
  ) {
    super(message);
  }
}

/** The server could not be reached at all. */
export class Unreachable extends Error {}

const page = Array.from({ length: 16 }, () => Math.floor(Math.random() * 36).toString(36)).join('');
let changes = 0;

/** A key for one change of this page: sent again with it, the change is answered again and not done again. */
export const changeKey = (): string => `${page}.${++changes}`;

/** The server said what this page does not understand: it is another version, or something stands in between. */
export class Misunderstood extends Error {}

/** What an operation is asked with; those parts that it has. */
interface Asking<P, Q, B> {
  params?: P;
  query?: Q;
  body?: B;
  /** The key of the change: hand in the same one to send the same change again. */
  key?: string;
  /** The answer is handed on as it came: who asks checks it itself, later or elsewhere. */
  unchecked?: boolean;
}

/** The address of an operation with its parts in their places. */
function addressOf({ path }: { path: string }, params: object = {}, query: object = {}): string {
  let address = path;
  for (const [name, part] of Object.entries(params))
    address = address.replace(`{${name}}`, encodeURIComponent(String(part)));
  const wanted = Object.entries(query)
    .filter(([, value]) => value !== undefined && value !== null)
    .map(([name, value]) => [name, String(value)]);
  return wanted.length === 0 ? address : `${address}?${new URLSearchParams(wanted)}`;
}

/**
 * Asks the HTTP API: `await call(planApi.plan, { params: { id } })`. What is answered is checked by the schema from which the
 * OpenAPI document is made. Throws `Refusal` with the server's sentence, `Unreachable`, or `Misunderstood`. Whatever is no GET
 * is a change and carries a key.
 */
export async function call<P, Q, B, R>(
  operation: Operation<P, Q, B, R>,
  { params, query, body, key = changeKey(), unchecked = false }: Asking<P, Q, B> = {},
): Promise<R> {
  let response: Response;
  try {
    response = await fetch(addressOf(operation, params ?? {}, query ?? {}), {
      method: operation.method,
      headers: {
        ...(operation.changes && { 'Idempotency-Key': key }),
        ...(body !== undefined && { 'Content-Type': 'application/json' }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Unreachable('Veridon does not answer. Is it still running?');
  }
  const answer: unknown = await response.json().catch(() => undefined);
  if (!response.ok) throw refusalOf(response.status, answer);
  if (unchecked) return answer as R;
  const read = operation.response.safeParse(answer);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Misunderstood(
    `What Veridon answered is not understood here (${[operation.path, ...issue!.path].join(' ')}). Load this page again.`,
  );
}

function refusalOf(status: number, answer: unknown): Refusal {
  const problem = problemSchema.safeParse(answer);
  return problem.success
    ? new Refusal(status, kindOf(problem.data.type), problem.data.detail)
    : new Refusal(status, null, `The server answered with status ${status}.`);
}

/** The sentence of anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
