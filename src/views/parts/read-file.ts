import { FILE_LIMIT, tooLarge, type Delimiter } from '@/core/interchange';
import type { CellContext } from '@/core/plan';
import { fail, type Result } from '@/core/result';
import type { ColumnMeaning } from '@/core/table';
import type { FileAsk, FileHead, FileSays, Made } from '@/workers/file-worker';

/** What is told while a file is read, and when it has been. */
export interface FileListener {
  onHead: (head: Result<FileHead>) => void;
  onMade?: (made: Made) => void;
  /** How much of it is done, 0 to 1. */
  onShare?: (share: number) => void;
}

/** A file that is being read, or has been. */
export interface FileInHand {
  /** Makes channels of what was read, by what its columns are said to be. */
  make: (meanings: readonly (ColumnMeaning | undefined)[], context: CellContext) => void;
  /** Ends it at once; nothing comes any more. */
  stop: () => void;
}

/** Reads a file in a worker of its own. What is too large is not even fetched from the disk. */
export function readInWorker(
  file: File,
  delimiter: Delimiter | undefined,
  { onHead, onMade, onShare }: FileListener,
): FileInHand {
  if (file.size > FILE_LIMIT) {
    const told = setTimeout(() => onHead(tooLarge(file.size)));
    return { make: () => {}, stop: () => clearTimeout(told) };
  }
  const worker = new Worker(new URL('../../workers/file-worker.ts', import.meta.url), { type: 'module' });
  const ask = (what: FileAsk, handed: Transferable[] = []) => worker.postMessage(what, handed);
  let stopped = false;
  const give = (told: () => void) => void (stopped || told());
  const broken = (why: string) => {
    worker.terminate();
    give(() => onHead(fail(`${file.name} ${why}`)));
  };
  worker.onmessage = ({ data }: MessageEvent<FileSays>) =>
    give(() => {
      if (data.says === 'read') onHead(data.head);
      else if (data.says === 'made') onMade?.(data.made);
      else onShare?.(data.share);
    });
  worker.onerror = (event) => {
    event.preventDefault();
    broken(`could not be read: ${event.message || 'it is more than this browser holds'}.`);
  };
  file.arrayBuffer().then(
    (bytes) => give(() => ask({ ask: 'read', bytes, delimiter }, [bytes])),
    () => broken('could not be fetched from the disk. Is it still there?'),
  );
  return {
    make: (meanings, context) => ask({ ask: 'make', meanings, context }),
    stop: () => {
      stopped = true;
      worker.terminate();
    },
  };
}
