/** How long until a connection that broke is opened again, ms. */
const AGAIN_MS = 500;
/** How often an idle connection is asked whether it still works, and how long the answer may take, ms. */
const ASK_MS = 10_000;

/**
 * Keeps one connection to a PostgreSQL server that hears the notifications of a channel (LISTEN), as long as the process runs. A connection that breaks is opened again. Nothing that was sent in
 * between is heard, so `joined` is called whenever a connection has begun to listen, the first time too.
 */
export function listenOn(
  url: string,
  channel: string,
  { heard, joined }: { heard: (payload: string) => void; joined: () => void },
): void {
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
    const own = new Client({
      connectionString: url,
      connectionTimeoutMillis: 5000,
      query_timeout: ASK_MS,
      keepAlive: true,
    });
    const ended = new Promise<void>((done) => {
      own.once('end', done);
      // An error without a listener would end the process.
      own.on('error', () => done());
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
      while (!over) {
        await pause(ASK_MS);
        if (!over) await own.query('select 1');
      }
    } finally {
      // A connection without an answer has no orderly end.
      void own.end().catch(() => {});
    }
  };
  const run = async () => {
    for (;;) {
      await connectionEnds().catch(() => {});
      await pause(AGAIN_MS);
    }
  };
  void run();
}
