import { fork, type ChildProcess } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import type { Asked, InputOf, OutputOf, PartOf, Said, TaskName } from '../reader/tasks';
import { Problem } from './problem';

/**
 * Files are read by processes of their own (src/reader): two at once, one file each, and the server's thread stays free. The others wait; who has had least of late
 * comes first, so that whoever sends one after the other keeps nobody else waiting.
 */

/** Readers at once, and how many of them for one client. */
const AT_ONCE = 2;
const OF_ONE = 1;
/** Files that wait at most. */
const MOST_WAITING = 100;
/** What reading one file may take: seconds of computing, and memory in MB. An honest file of the largest size takes a third of each. */
const SECONDS = () => Number(process.env.VERIDON_READER_SECONDS ?? 15);
const MEGABYTES = () => Number(process.env.VERIDON_READER_MB ?? 1200);
/** How much of the memory may be JavaScript's own. */
const HEAP_SHARE = 0.64;
/** How far they stand back for the server: 19 is farthest. */
const NICE = 5;
/** After so long half of what a client has had is forgotten, ms. */
const HALF_MS = 10_000;

/** Who asks: the client that its key names, and a signal for when it has gone. */
export interface Reads<N extends TaskName> {
  lane?: string;
  gone?: AbortSignal | undefined;
  /** Takes what is told in parts. */
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

/** Waits for a turn; gives what ends it. */
function turn(lane: string, gone: AbortSignal | undefined): Promise<() => void> {
  if (waiting.length >= MOST_WAITING)
    throw new Problem(
      429,
      'too-many',
      'Too many files at once',
      `${MOST_WAITING} files wait to be read. Nothing was changed; send this one again in a while.`,
    );
  return new Promise((started, failed) => {
    const leave = () => {
      waiting = waiting.filter((other) => other !== one);
      failed(new Gone());
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

/** Who sent the file has gone: nothing is read any more, and nobody hears what is said. */
class Gone extends Problem {
  constructor() {
    super(499, 'refused', 'Nobody waits', 'Who sent the file has gone. Nothing was read.');
  }
}

const unreadable = (detail: string) => new Problem(422, 'unreadable', 'The file cannot be read', detail);

/** Why a reader ended without an answer. */
function brokenOff(signal: NodeJS.Signals | null): Problem {
  if (signal === 'SIGALRM')
    return unreadable(
      `Reading this file takes more than ${SECONDS()} seconds of computing, which no file of stations, people or settings needs. Nothing was changed. Save it again, or split it.`,
    );
  return unreadable(
    'Reading this file takes more memory than a file may have. Nothing was changed. Save it again, or split it.',
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
    // Nothing of what the server knows is any affair of a file.
    env: {
      NODE_ENV: 'production',
      VERIDON_READER_SECONDS: String(SECONDS()),
      VERIDON_READER_BYTES: String(MEGABYTES() * 1e6),
    },
  });
  try {
    // Behind whoever waits for an answer, and not so far that it gets nowhere beside other programs.
    setPriority(child.pid!, NICE);
  } catch {
    // It has ended already, or this machine has no priorities.
  }
  return child;
}

/** Has a task done by a process of its own. Throws the problem that says why there is no answer; `part` is given parts one by one. */
export async function readOutside<N extends TaskName>(
  task: N,
  input: InputOf<N>,
  { lane = '', gone, part }: Reads<N> = {},
): Promise<OutputOf<N>> {
  const end = await turn(lane, gone);
  try {
    const child = startReader();
    try {
      return await answerOf(child, { task, input }, gone, part as (part: unknown) => Promise<void>);
    } finally {
      child.kill('SIGKILL');
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
    const leave = () => failed(new Gone());
    if (gone?.aborted) return leave();
    gone?.addEventListener('abort', leave, { once: true });
    const send = (what: Asked) =>
      child.send(what, (error) => {
        // Where it has ended that is heard below, with the reason.
        if (error && child.exitCode === null && child.signalCode === null) failed(error);
      });
    child.on('message', (said: Said) => {
      if ('part' in said) void part(said.part).then(() => send({ taken: true }), failed);
      else if ('done' in said) done(said.done as R);
      else failed(new Error(said.mistake));
    });
    child.once('error', failed);
    child.once('exit', (_, signal) => failed(brokenOff(signal)));
    send(asked);
  });
}
