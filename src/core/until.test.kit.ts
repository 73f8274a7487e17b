/** Waiting in tests: for a state, never for a time; not used by the application. */

/** A wait that lasts this long, ms, will never end. It only turns a hang into a message; no test measures a time with it. */
export const HANG_MS = 240_000;

export const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/** Asks again and again until the answer is there, however slow the machine, and gives it; says what it waited for when it never comes. */
export async function until<T>(
  what: string | (() => string),
  ask: () => Promise<T | undefined | false | null> | T | undefined | false | null,
  { everyMs = 40, hangMs = HANG_MS }: { everyMs?: number; hangMs?: number } = {},
): Promise<T> {
  const end = Date.now() + hangMs;
  for (;;) {
    const answer = await ask();
    if (answer) return answer;
    if (Date.now() > end) throw new Error(`Waited in vain for ${typeof what === 'string' ? what : what()}`);
    await pause(everyMs);
  }
}

/** For `jest.useFakeTimers`: only setTimeout is faked, so that sockets go on while a test moves time. */
export const NO_TIMERS_BUT_TIMEOUTS: NonNullable<FakeTimersConfig['doNotFake']> = [
  'Date',
  'hrtime',
  'nextTick',
  'performance',
  'queueMicrotask',
  'setImmediate',
  'clearImmediate',
  'setInterval',
  'clearInterval',
];
