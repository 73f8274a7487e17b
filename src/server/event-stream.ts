/** Event streams (WHATWG HTML, 9.2): what is new is said as it comes, of several things at once the last. */

/** How long nothing is said before a line that says nothing, so that a connection that broke is noticed, ms. */
const QUIET_MS = 15_000;

/** Hears of news until it is called. */
export type Listen<T> = (hear: (news: T) => void) => () => void;

/** An event stream that begins with `first` and ends when whoever asked has gone. */
export async function* eventStream<T>(
  listen: Listen<T>,
  first: T,
  gone: AbortSignal,
): AsyncGenerator<string> {
  let news: { now: T } | null = { now: first };
  let wake: () => void = () => {};
  const leave = listen((now) => {
    news = { now };
    wake();
  });
  const end = () => wake();
  gone.addEventListener('abort', end);
  try {
    yield 'retry: 1500\n\n';
    while (!gone.aborted) {
      if (news) {
        const { now }: { now: T } = news;
        news = null;
        yield `data: ${JSON.stringify(now)}\n\n`;
        continue;
      }
      let timer: NodeJS.Timeout | undefined;
      const quiet = await new Promise<boolean>((done) => {
        wake = () => done(false);
        timer = setTimeout(() => done(true), QUIET_MS);
        timer.unref();
      });
      clearTimeout(timer);
      if (quiet) yield ': still here\n\n';
    }
  } finally {
    gone.removeEventListener('abort', end);
    leave();
  }
}
