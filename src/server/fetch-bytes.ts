import { benchUrl } from './bench-address';
import { patienceMs } from './sources';

/** Something that is fetched as it comes. */
export interface Stream {
  /** What it is called, for people. */
  source: string;
  path: string;
}

/** What stopped a load that is nobody's mistake. */
export class LoadFailed extends Error {}

/** How long nothing may come, ms. */
const idleMs = () => patienceMs() * 2;

/** Bytes that are handed on at once: to read more would keep others waiting. */
const PIECE = 32_768;

/** The bytes of it as they come, in pieces between which others have their turn; fails in words where they stop coming. */
export async function* bytesOf({ source, path }: Stream, signal: AbortSignal): AsyncGenerator<Uint8Array> {
  // A signal that has come already is never told of again.
  signal.throwIfAborted();
  const over = new AbortController();
  const leave = () => over.abort();
  signal.addEventListener('abort', leave, { once: true });
  let idle: NodeJS.Timeout | undefined;
  const patience = () => {
    clearTimeout(idle);
    idle = setTimeout(leave, idleMs()).unref();
  };
  /** Held against each step: a fetch whose signal fires while its body comes has been seen never to end on Node 20. */
  const gone = new Promise<never>((_, reject) =>
    over.signal.addEventListener('abort', () => reject(new Error('given up')), { once: true }),
  );
  gone.catch(() => {});
  let reader: ReadableStreamDefaultReader<Uint8Array> | undefined;
  try {
    patience();
    const response = await Promise.race([
      fetch(new URL(path, benchUrl()), { signal: over.signal, cache: 'no-store', redirect: 'error' }),
      gone,
    ]);
    if (!response.ok) throw new LoadFailed(`The ${source} answered with status ${response.status}.`);
    reader = response.body!.getReader();
    for (;;) {
      patience();
      const part = await Promise.race([reader.read(), gone]);
      if (part.done) return;
      clearTimeout(idle);
      for (let from = 0; from < part.value.length; from += PIECE) {
        yield part.value.subarray(from, from + PIECE);
        await new Promise((goOn) => setImmediate(goOn));
      }
    }
  } catch (error) {
    if (error instanceof LoadFailed || signal.aborted) throw error;
    if (over.signal.aborted)
      throw new LoadFailed(`Nothing came of the ${source} for ${idleMs() / 1000} seconds.`);
    throw new LoadFailed(
      String((error as Error).cause ?? '').includes('ECONNREFUSED')
        ? `Nothing answers where the ${source} is. Is the bench process running (npm run bench)?`
        : `The connection to the ${source} broke before it was whole.`,
    );
  } finally {
    clearTimeout(idle);
    signal.removeEventListener('abort', leave);
    void reader?.cancel().catch(() => {});
    leave();
  }
}
