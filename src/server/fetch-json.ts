/** Why an answer could not be had. */
export type FetchTrouble = 'slow' | 'away' | 'cut off' | 'too large' | 'not JSON' | { status: number };

export class FetchFailed extends Error {
  constructor(readonly trouble: FetchTrouble) {
    super(typeof trouble === 'string' ? trouble : `status ${trouble.status}`);
  }
}

/**
 * Asks a service for JSON and believes nothing of it: reads no more than `most` bytes, and stops when `signal` says so
 * (patience is over, or whoever asked has gone). Throws `FetchFailed`.
 */
export async function fetchJson(
  url: URL,
  { most, signal, headers = {} }: { most: number; signal: AbortSignal; headers?: Record<string, string> },
): Promise<unknown> {
  try {
    const response = await fetch(url, { signal, headers, cache: 'no-store', redirect: 'error' });
    if (!response.ok) {
      await response.body?.cancel();
      throw new FetchFailed({ status: response.status });
    }
    const chunks: Uint8Array[] = [];
    let bytes = 0;
    const reader = response.body!.getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      bytes += part.value.length;
      if (bytes > most) {
        await reader.cancel();
        throw new FetchFailed('too large');
      }
      chunks.push(part.value);
    }
    return JSON.parse(Buffer.concat(chunks).toString('utf8'));
  } catch (error) {
    if (error instanceof FetchFailed) throw error;
    if (error instanceof SyntaxError) throw new FetchFailed('not JSON');
    if (signal.aborted) throw new FetchFailed('slow');
    const refused = String((error as Error).cause ?? '').includes('ECONNREFUSED');
    throw new FetchFailed(refused ? 'away' : 'cut off');
  }
}
