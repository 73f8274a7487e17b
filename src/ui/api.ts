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

/** Asks the HTTP API; throws `Refusal` with its sentence, or `Unreachable`. */
export async function ask<T>(
  path: string,
  method: 'GET' | 'POST' | 'DELETE' = 'GET',
  body?: unknown,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(body !== undefined && {
        body: JSON.stringify(body),
        headers: { 'Content-Type': 'application/json' },
      }),
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
