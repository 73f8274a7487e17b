import { readFile, type Delimiter } from '@/core/interchange';

/** Reads a file beside the page: a large one would hold it up. It is ended where nobody waits for it any more. */
addEventListener('message', ({ data }: MessageEvent<{ bytes: ArrayBuffer; delimiter?: Delimiter }>) => {
  postMessage(readFile(new Uint8Array(data.bytes), data.delimiter));
});
