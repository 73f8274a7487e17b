import type { ProblemKind } from '../core/problems';

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
export class Unreachable extends Error {
  constructor() {
    super('Veridon does not answer. Is it still running?');
  }
}

/** The server said what this page does not understand: it is another version, or something stands in between. */
export class Misunderstood extends Error {}

/** The sentence of anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}

const page = Array.from({ length: 16 }, () => Math.floor(Math.random() * 36).toString(36)).join('');
let changes = 0;

/** A key for one change of this page: sent again with it, the change is answered again and not done again. */
export const changeKey = (): string => `${page}.${++changes}`;

/** An answer as it came; `answer` is undefined where it was no JSON. */
export interface Answered {
  ok: boolean;
  status: number;
  answer: unknown;
}

/** Asks the server and hands on its answer as it comes. Throws `Unreachable`. */
export async function askRaw(
  method: string,
  address: string,
  { key, body }: { key?: string; body?: unknown } = {},
): Promise<Response> {
  try {
    return await fetch(address, {
      method,
      headers: {
        ...(key !== undefined && { 'Idempotency-Key': key }),
        ...(body !== undefined && { 'Content-Type': 'application/json' }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Unreachable();
  }
}

/**
 * Asks the server and hands on what it answers, unlooked at: for `call`, which checks it, and for who checks it later or
 * elsewhere. Throws `Unreachable`.
 */
export async function ask(
  method: string,
  address: string,
  sent: { key?: string; body?: unknown } = {},
): Promise<Answered> {
  const response = await askRaw(method, address, sent);
  const answer: unknown = await response.json().catch(() => undefined);
  return { ok: response.ok, status: response.status, answer };
}
