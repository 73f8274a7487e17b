import { Duplex } from 'node:stream';
import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { Told } from './database-thread.mjs';
import { threadWith } from './start-thread.mjs';
import type { DiskStep } from './synced-fs.mjs';

/**
 * The embedded database as a client sees it: connections that carry PostgreSQL's protocol, so that the driver of database
 * servers serves for both. The database works in a thread of its own; only tests that cut the power have it in theirs.
 */
export interface Embedded {
  /** A connection, where the driver wants to open one. */
  connection(): Duplex;
  close(): Promise<void>;
}

type Connect = () => Promise<MessagePort>;

/** The embedded database has broken down; what it was asked was not confirmed. */
export class DatabaseStopped extends Error {
  readonly code = 'DATABASE_STOPPED';
  constructor() {
    super('Connection terminated: the database stopped.');
  }
}

/** A connection over a port. Messages go as the driver puts them together, and each is answered by one. */
class Connection extends Duplex {
  private port: MessagePort | undefined;
  private unanswered = 0;

  constructor(private readonly open: Connect) {
    super();
  }

  // What the driver asks of a socket.
  connect(): void {
    this.open().then(
      (port) => {
        this.port = port;
        port.on('message', (said: Uint8Array) => {
          // Nobody who waits for nothing is kept from ending.
          if (--this.unanswered === 0) port.unref();
          if (said.length > 0) this.push(Buffer.from(said.buffer, said.byteOffset, said.length));
        });
        port.on('close', () => this.destroy(this.writableEnded ? undefined : new DatabaseStopped()));
        port.unref();
        this.emit('connect');
      },
      (error: Error) => this.destroy(error),
    );
  }
  setNoDelay(): void {}
  setKeepAlive(): void {}
  ref(): void {}
  unref(): void {}

  override _read(): void {}
  override _write(bytes: Buffer, _: BufferEncoding, done: () => void): void {
    this.send(bytes);
    done();
  }
  override _writev(parts: { chunk: Buffer }[], done: () => void): void {
    this.send(Buffer.concat(parts.map(({ chunk }) => chunk)));
    done();
  }
  override _final(done: () => void): void {
    this.port?.close();
    done();
  }
  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    this.port?.close();
    done(error);
  }

  private send(bytes: Buffer): void {
    // A copy of its own: the driver's buffers are parts of larger ones, which cannot be given away.
    const own = Uint8Array.from(bytes);
    if (this.unanswered++ === 0) this.port?.ref();
    this.port?.postMessage(own, [own.buffer]);
  }
}

/** Opens the files in a folder, in a thread; where that breaks down, the next connection begins another. */
export async function openInThread(folder: string): Promise<Embedded> {
  const open = async () => {
    const { worker, ask } = await threadWith(folder);
    // It ends with whoever started it.
    worker.unref();
    worker.on('error', () => {});
    worker.once('exit', () => (running = undefined));
    return { worker, ask };
  };
  let running: ReturnType<typeof open> | undefined;
  const begin = () => {
    running = open();
    // Whoever asks next tries again.
    running.catch(() => (running = undefined));
    return running;
  };
  await begin();
  return {
    connection: () =>
      new Connection(async () => {
        const { worker } = await (running ?? begin());
        const { port1, port2 } = new MessageChannel();
        worker.postMessage({ connection: port2 } satisfies Told, [port2]);
        return port1;
      }),
    async close() {
      const { worker, ask } = await (running ?? begin());
      await ask({ close: true });
      await worker.terminate();
    },
  };
}

/** Opens the files in a folder, in this thread, and tells `heard` every step that is done to them. */
export async function openHere(folder: string, heard: (step: DiskStep) => void): Promise<Embedded> {
  const { carry, openFiles } = await import('./embedded.mjs');
  const files = await openFiles(folder, { heard });
  return {
    connection: () =>
      new Connection(async () => {
        const { port1, port2 } = new MessageChannel();
        carry(files, port2);
        port2.unref();
        return port1;
      }),
    close: () => files.close(),
  };
}
