/** What the server said when it refused: its problem document's sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
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

/**
 * Asks the HTTP API; throws `Refusal` with its sentence, or `Unreachable`. Whatever is no GET is a change and carries a
 * key: hand in the same one to send the same change again.
 */
export async function ask<T>(
  path: string,
  method: 'GET' | 'POST' | 'DELETE' = 'GET',
  body?: unknown,
  key = changeKey(),
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        ...(method !== 'GET' && { 'Idempotency-Key': key }),
        ...(body !== undefined && { 'Content-Type': 'application/json' }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Unreachable('Veridon does not answer. Is it still running?');
  }
  const answer: unknown = await response.json().catch(() => ({}));
  if (response.ok) return answer as T;
  const problem = answer as { detail?: string; type?: string };
  throw new Refusal(
    response.status,
    problem.type?.split(':').pop() ?? '',
    problem.detail ?? `The server answered with status ${response.status}.`,
  );
}

/** The sentence of anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
