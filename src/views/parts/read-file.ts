import { FILE_LIMIT, type Delimiter, type FileContent } from '@/core/interchange';
import { fail, type Result } from '@/core/result';

/** Reads a file in a worker of its own; `stop` ends that, and nothing comes any more. What is too large is not even fetched from the disk. */
export function readInWorker(
  file: File,
  delimiter: Delimiter | undefined,
  done: (content: Result<FileContent>) => void,
): () => void {
  if (file.size > FILE_LIMIT) {
    done(
      fail(
        `${file.name} has ${Math.round(file.size / 1e6)} MB; ${FILE_LIMIT / 1e6} MB are the most. Nothing was read; part it.`,
      ),
    );
    return () => {};
  }
  const worker = new Worker(new URL('../../workers/file-worker.ts', import.meta.url), { type: 'module' });
  let stopped = false;
  const end = (content: Result<FileContent>) => {
    worker.terminate();
    if (!stopped) done(content);
  };
  worker.onmessage = ({ data }: MessageEvent<Result<FileContent>>) => end(data);
  worker.onerror = (event) => {
    event.preventDefault();
    end(fail(`${file.name} could not be read: ${event.message || 'it is more than this browser holds'}.`));
  };
  file.arrayBuffer().then(
    (bytes) => worker.postMessage({ bytes, delimiter }, [bytes]),
    () => end(fail(`${file.name} could not be fetched from the disk. Is it still there?`)),
  );
  return () => {
    stopped = true;
    worker.terminate();
  };
}
