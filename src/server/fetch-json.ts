/** Why an answer could not be had. */
export type FetchTrouble = 'slow' | 'away' | 'cut off' | 'too large' | 'not JSON' | { status: number };

export class FetchFailed extends Error {
  constructor(readonly trouble: FetchTrouble) {
    super(typeof trouble === 'string' ? trouble : `status ${trouble.status}`);
  }
}

/**
 * A signal for someone who asks a service: it comes when patience is over, in ms, or when whoever asked has gone.
 * Not AbortSignal.any over AbortSignal.timeout: Node 20 may collect the two as garbage before the time is over, and then
 * nobody is ever told.
 */
export function giveUpAfter(patienceMs: number, gone?: AbortSignal): AbortSignal {
  const over = new AbortController();
  setTimeout(() => over.abort(), patienceMs).unref();
  // A signal that has come already is never told of again.
  if (gone?.aborted) over.abort();
  gone?.addEventListener('abort', () => over.abort(), { once: true });
  return over.signal;
}

/**
 * Asks a service for JSON and believes nothing of it: reads no more than `most` bytes, and stops when `signal` says so
 * (patience is over, or whoever asked has gone). Throws `FetchFailed`.
 */
export async function fetchJson(
  url: URL,
  { most, signal, headers = {} }: { most: number; signal: AbortSignal; headers?: Record<string, string> },
): Promise<unknown> {
  // Held against every step: a body that trickles in has been seen to go on after the signal alone was given to fetch.
  const over = new Promise<never>((_, reject) => {
    if (signal.aborted) reject(new FetchFailed('slow'));
    signal.addEventListener('abort', () => reject(new FetchFailed('slow')), { once: true });
  });
  over.catch(() => {});
  let reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  try {
    const response = await Promise.race([
      fetch(url, { signal, headers, cache: 'no-store', redirect: 'error' }),
      over,
    ]);
    reader = response.body?.getReader();
    if (!response.ok) throw new FetchFailed({ status: response.status });
    const chunks: Uint8Array[] = [];
    let bytes = 0;
    for (;;) {
      const part = await Promise.race([reader!.read(), over]);
      if (part.done) break;
      bytes += part.value.length;
      if (bytes > most) throw new FetchFailed('too large');
      chunks.push(part.value);
    }
    return JSON.parse(Buffer.concat(chunks).toString('utf8'));
  } catch (error) {
    // What may still come of it is not read; nobody waits for the other end to hear of that.
    void reader?.cancel().catch(() => {});
    if (error instanceof FetchFailed) throw error;
    if (error instanceof SyntaxError) throw new FetchFailed('not JSON');
    if (signal.aborted) throw new FetchFailed('slow');
    const refused = String((error as Error).cause ?? '').includes('ECONNREFUSED');
    throw new FetchFailed(refused ? 'away' : 'cut off');
  }
}
