import { fork, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import type { Asked, InputOf, OutputOf, PartOf, Said, TaskName } from '../reader/tasks';
import { Problem } from './problem';

/**
 * Starts a reader process for each file (src/reader), two at a time, so that the server's thread stays free. Other files wait. The client that used the readers
 * least recently comes first, so a client that sends many files does not delay the others.
 */

/** Readers at a time, and readers of one client at a time. */
const AT_ONCE = 2;
const OF_ONE = 1;
/** Most files that wait. */
const MOST_WAITING = 100;
/** Limits of one reader: processor time in seconds, memory in MB. The largest ordinary file needs about a third of each. */
const SECONDS = () => Number(process.env.VERIDON_READER_SECONDS ?? 15);
const MEGABYTES = () => Number(process.env.VERIDON_READER_MB ?? 1200);
/** The share of the memory that the JavaScript heap may use. */
const HEAP_SHARE = 0.64;
/** Scheduling priority of a reader; 0 is the server's, 19 the lowest. */
const NICE = 5;
/** The recorded use of a client halves in this time, ms. */
const HALF_MS = 10_000;

export interface ReaderOptions<N extends TaskName> {
  /** The client, as the key of its change names it. */
  lane?: string;
  /** Aborted when the client closes the connection. */
  gone?: AbortSignal | undefined;
  /** Called with each part of the result; the reader waits for it. */
  part?: (part: PartOf<N>) => Promise<void>;
}

interface Waiting {
  lane: string;
  start: () => void;
}

let waiting: Waiting[] = [];
const reading = new Map<string, number>();
const had = new Map<string, { ms: number; at: number }>();

const hadBy = (lane: string, now: number): number => {
  const { ms, at } = had.get(lane) ?? { ms: 0, at: now };
  return ms * 0.5 ** ((now - at) / HALF_MS);
};

function next(): void {
  const busy = [...reading.values()].reduce((sum, n) => sum + n, 0);
  if (busy >= AT_ONCE) return;
  const now = performance.now();
  const [first] = waiting
    .filter(({ lane }) => (reading.get(lane) ?? 0) < OF_ONE)
    .sort((a, b) => hadBy(a.lane, now) - hadBy(b.lane, now));
  if (!first) return;
  waiting = waiting.filter((one) => one !== first);
  reading.set(first.lane, (reading.get(first.lane) ?? 0) + 1);
  first.start();
  next();
}

function ended(lane: string, ms: number): void {
  const left = (reading.get(lane) ?? 1) - 1;
  if (left === 0) reading.delete(lane);
  else reading.set(lane, left);
  const now = performance.now();
  had.set(lane, { ms: hadBy(lane, now) + ms, at: now });
  for (const [name] of had) if (hadBy(name, now) < 1) had.delete(name);
  next();
}

/** Waits for a free reader; gives the function that releases it. */
function turn(lane: string, gone: AbortSignal | undefined): Promise<() => void> {
  if (waiting.length >= MOST_WAITING)
    throw new Problem(
      429,
      'too-many',
      'Too many files at once',
      `${MOST_WAITING} files are waiting to be read. Nothing was changed. Try again in a minute.`,
    );
  return new Promise((started, failed) => {
    const leave = () => {
      waiting = waiting.filter((other) => other !== one);
      failed(new ClientGone());
    };
    const one: Waiting = {
      lane,
      start() {
        gone?.removeEventListener('abort', leave);
        const began = performance.now();
        started(() => ended(lane, performance.now() - began));
      },
    };
    if (gone?.aborted) return leave();
    gone?.addEventListener('abort', leave, { once: true });
    waiting.push(one);
    next();
  });
}

/** The client closed the connection before the file was read. */
class ClientGone extends Problem {
  constructor() {
    super(499, 'refused', 'Cancelled', 'The client closed the connection. Nothing was changed.');
  }
}

const unreadable = (detail: string) => new Problem(422, 'unreadable', 'The file cannot be read', detail);

/** Why a reader ended without a result. */
function endReason(signal: NodeJS.Signals | null): Problem {
  if (signal === 'SIGALRM')
    return unreadable(
      `The file takes too long to read (over ${SECONDS()} seconds of processor time). Nothing was changed. Save the file again, or split it.`,
    );
  return unreadable(
    `The file needs too much memory (over ${MEGABYTES()} MB). Nothing was changed. Save the file again, or split it.`,
  );
}

const readerFile = () => join(process.cwd(), '.build', 'reader', 'main.js');

function startReader(): ChildProcess {
  const file = readerFile();
  if (!existsSync(/* turbopackIgnore: true */ file))
    throw new Error(`${file} is missing: npm run demo, npm run dev and npm test make it.`);
  const child = fork(/* turbopackIgnore: true */ file, [], {
    serialization: 'advanced',
    execArgv: [`--max-old-space-size=${Math.floor(MEGABYTES() * HEAP_SHARE)}`],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    // The reader gets none of the server's environment.
    env: {
      NODE_ENV: 'production',
      VERIDON_READER_SECONDS: String(SECONDS()),
      VERIDON_READER_BYTES: String(MEGABYTES() * 1e6),
    },
  });
  try {
    // Below the server, but high enough to make progress on a busy machine.
    setPriority(child.pid!, NICE);
  } catch {
    // The process has ended already, or the system has no priorities.
  }
  return child;
}

/** Runs a task in a reader process and gives its result. Throws a Problem if the process was ended. */
export async function runReader<N extends TaskName>(
  task: N,
  input: InputOf<N>,
  { lane = '', gone, part }: ReaderOptions<N> = {},
): Promise<OutputOf<N>> {
  const end = await turn(lane, gone);
  /** The part that is being taken. The caller may undo everything once this function has ended, so nothing may be under way then. */
  let taking: Promise<void> = Promise.resolve();
  let over = false;
  // A part that the reader had sent before it was ended can arrive afterwards.
  const take = (one: unknown) =>
    over ? Promise.resolve() : (taking = (part as (part: unknown) => Promise<void>)(one));
  try {
    const child = startReader();
    try {
      return await answerOf(child, { task, input }, gone, take);
    } finally {
      over = true;
      child.kill('SIGKILL');
      await taking.catch(() => {});
    }
  } finally {
    end();
  }
}

function answerOf<R>(
  child: ChildProcess,
  asked: Asked,
  gone: AbortSignal | undefined,
  part: (part: unknown) => Promise<void>,
): Promise<R> {
  return new Promise((done, failed) => {
    const leave = () => failed(new ClientGone());
    if (gone?.aborted) return leave();
    gone?.addEventListener('abort', leave, { once: true });
    const send = (what: Asked) =>
      child.send(what, (error) => {
        // If the process has ended, the exit event says why.
        if (error && child.exitCode === null && child.signalCode === null) failed(error);
      });
    child.on('message', (said: Said) => {
      if ('part' in said) void part(said.part).then(() => send({ taken: true }), failed);
      else if ('done' in said) done(said.done as R);
      else failed(new Error(said.mistake));
    });
    child.once('error', failed);
    // Without a signal it is the reader that is at fault, not the file.
    child.once('exit', (code, signal) =>
      failed(signal === null ? new Error(`The reader ended with code ${code}.`) : endReason(signal)),
    );
    send(asked);
  });
}
