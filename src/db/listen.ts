import type { Client } from 'pg';

/** How long until a connection that broke is opened again, ms. */
const AGAIN_MS = 500;
/** How often an idle connection is asked whether it still works, and how long the answer may take, ms. */
const ASK_MS = 10_000;

export interface Listening {
  close(): Promise<void>;
}

/**
 * Keeps one connection to a PostgreSQL server that hears the notifications of a channel (LISTEN). A connection that breaks is opened again. Nothing that was sent in
 * between is heard, so `joined` is called whenever a connection has begun to listen, the first time too.
 */
export function listenOn(
  url: string,
  channel: string,
  { heard, joined }: { heard: (payload: string) => void; joined: () => void },
): Listening {
  let closed = false;
  let client: Client | undefined;
  let wake = () => {};
  const pause = (ms: number) =>
    new Promise<void>((done) => {
      const timer = setTimeout(done, ms);
      timer.unref();
      wake = () => {
        clearTimeout(timer);
        done();
      };
    });
  const connectionEnds = async () => {
    const { Client } = await import('pg');
    const own = (client = new Client({
      connectionString: url,
      connectionTimeoutMillis: 5000,
      query_timeout: ASK_MS,
      keepAlive: true,
    }));
    const ended = new Promise<void>((done) => {
      own.once('end', done);
      own.once('error', () => done());
    });
    try {
      own.on('notification', ({ payload }) => heard(payload ?? ''));
      await own.connect();
      await own.query(`LISTEN ${own.escapeIdentifier(channel)}`);
      joined();
      let over = false;
      void ended.then(() => {
        over = true;
        wake();
      });
      while (!over && !closed) {
        await pause(ASK_MS);
        if (!over && !closed) await own.query('select 1');
      }
    } finally {
      // A connection without an answer has no orderly end.
      void own.end().catch(() => {});
    }
  };
  const run = async () => {
    while (!closed) {
      await connectionEnds().catch(() => {});
      if (!closed) await pause(AGAIN_MS);
    }
  };
  const running = run();
  return {
    close: async () => {
      closed = true;
      wake();
      await client?.end().catch(() => {});
      await running;
    },
  };
}
