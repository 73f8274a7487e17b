import { kindOf } from '../core/problems';
import { problemSchema } from '../core/problems.schema';
import { ask, askRaw, changeKey, Misunderstood, Refusal } from './ask';
import type { FileAnswer, Operation } from './operation';

export { changeKey, Misunderstood, Refusal, sentenceOf, Unreachable } from './ask';

/** What an operation is asked with; those parts that it has. */
interface Asking<P, Q, B> {
  params?: P;
  query?: Q;
  body?: B;
  /** The key of the change: hand in the same one to send the same change again. */
  key?: string;
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
  { params, query, body, key = changeKey() }: Asking<P, Q, B> = {},
): Promise<R> {
  const { ok, status, answer } = await ask(
    operation.method,
    addressOf(operation, params ?? {}, query ?? {}),
    { body, ...(operation.changes && { key }) },
  );
  if (!ok) throw refusalOf(status, answer);
  const read = operation.response.safeParse(answer);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Misunderstood(
    `What Veridon answered is not understood here (${[operation.path, ...issue!.path].join(' ')}). Load this page again.`,
  );
}

/** Asks for a file: its bytes and the name that it is saved under. Throws as `call` does. */
export async function callFile<P, Q, B>(
  operation: Operation<P, Q, B, FileAnswer>,
  { params, query, body }: Asking<P, Q, B> = {},
): Promise<{ name: string; bytes: Blob }> {
  const response = await askRaw(operation.method, addressOf(operation, params ?? {}, query ?? {}), { body });
  if (!response.ok) throw refusalOf(response.status, await response.json().catch(() => undefined));
  const [, name = 'veridon'] =
    /filename="([^"]+)"/.exec(response.headers.get('Content-Disposition') ?? '') ?? [];
  return { name, bytes: await response.blob() };
}

/** What was refused, of the answer that said so. */
export function refusalOf(status: number, answer: unknown): Refusal {
  const problem = problemSchema.safeParse(answer);
  return problem.success
    ? new Refusal(status, kindOf(problem.data.type), problem.data.detail)
    : new Refusal(status, null, `The server answered with status ${status}.`);
}
