import { readFileSync } from 'node:fs';
import { HANG_MS } from '../src/core/until.test.kit';

/** What an attack counted, and what it found broken. */
export interface Report {
  attack: string;
  figures: Record<string, number | string>;
  /** Each in a sentence; nothing where all held. */
  broken: string[];
}

/**
 * How long things may take, ms: a request before that is a fault, a request before it is given up, and a radio and a plan before they have found
 * together again. The short run in npm test measures no time: there they are as long as it takes.
 */
export const limits = {
  ...{ hangMs: 2000, answerMs: 10_000, togetherMs: 30_000 },
  // While hostile files are read: one of them, 95 of 100 edits, the slowest edit, and an ordinary file of a megabyte.
  ...{ fileMs: 120_000, editMs: 250, editWorstMs: 1000, importMs: 10_000 },
  /** How long any operation on its largest input may keep others waiting. */
  standMs: 100,
};

export function measureNoTime(): void {
  Object.assign(limits, { hangMs: Infinity, answerMs: HANG_MS, togetherMs: HANG_MS, fileMs: HANG_MS });
  Object.assign(limits, { editMs: Infinity, editWorstMs: Infinity, importMs: Infinity, standMs: Infinity });
}

/** Longest that anybody waits for a PDF behind six others, ms. */
const PRINTER_MS = 40_000;

export interface Answer {
  status: number;
  ms: number;
  body: unknown;
  type: string;
}

/** How long this process itself stood still so far, ms: what it waits for then is not what the server takes. */
let stoodStill = 0;
const TICK = 20;
let ticked = performance.now();
setInterval(() => {
  const now = performance.now();
  stoodStill += Math.max(0, now - ticked - 2 * TICK);
  ticked = now;
}, TICK).unref();

/** Asks and times the answer; goes away after `waitMs` with status 0, whatever becomes of the request. */
export async function ask(
  url: string,
  init: RequestInit = {},
  // Who waits in turn for the printer is told so within its own bound.
  waitMs = /\/paper\b/.test(url) ? Math.max(PRINTER_MS, limits.answerMs) : limits.answerMs,
): Promise<Answer> {
  const began = performance.now();
  const stoodBefore = stoodStill;
  const took = () => performance.now() - began - (stoodStill - stoodBefore);
  const leave = new AbortController();
  let timer: NodeJS.Timeout | undefined;
  // Held against each step: a fetch whose signal fires while its body comes has been seen never to end on Node 20.
  const over = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      reject(new Error(`no answer within ${waitMs} ms`));
      leave.abort();
    }, waitMs);
  });
  try {
    // A connection of its own: one that is used again may have been closed while this process stood still.
    const headers = { connection: 'close', ...(init.headers as Record<string, string> | undefined) };
    const response = await Promise.race([fetch(url, { ...init, headers, signal: leave.signal }), over]);
    const type = response.headers.get('content-type') ?? '';
    // An event stream goes on: its beginning is the answer.
    const beginning = async () => {
      const reader = response.body!.getReader();
      const { value } = await reader.read();
      void reader.cancel();
      return new TextDecoder().decode(value);
    };
    const text = await Promise.race([type.includes('event-stream') ? beginning() : response.text(), over]);
    const body: unknown = type.includes('json') && text !== '' ? JSON.parse(text) : text;
    return { status: response.status, ms: took(), body, type };
  } catch (error) {
    const { cause } = error as { cause?: unknown };
    return { status: 0, ms: took(), body: `${String(error)} ${cause ? String(cause) : ''}`, type: '' };
  } finally {
    clearTimeout(timer);
  }
}

export const post = (body: unknown, headers: Record<string, string> = {}): RequestInit => ({
  method: 'POST',
  headers: { 'Content-Type': 'application/json', ...headers },
  ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
});

/** Resident memory of a process, MB; 0 where it is gone. */
export function memoryOf(pid: number | undefined): number {
  try {
    const status = readFileSync(`/proc/${pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+) kB/.exec(status)?.[1] ?? 0) / 1000;
  } catch {
    return 0;
  }
}

/** The value below which a share of all lies; 0 of none. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

/** Counts answers and notes what no answer may be. */
export class Watch {
  readonly broken: string[] = [];
  readonly statuses = new Map<number, number>();
  readonly times: number[] = [];

  take(what: string, { status, ms, body, type }: Answer, patienceMs = limits.hangMs): void {
    this.statuses.set(status, (this.statuses.get(status) ?? 0) + 1);
    this.times.push(ms);
    if (status === 0) this.note(`${what}: no answer (${String(body).slice(0, 100)})`);
    if (status === 500) this.note(`${what}: 500 ${JSON.stringify(body).slice(0, 300)}`);
    // A program of its own makes PDF, one after the other, and tells whom it lets wait too long.
    const patience = /\/paper\b/.test(what) ? Math.max(patienceMs, PRINTER_MS) : patienceMs;
    if (ms > patience) this.note(`${what}: ${Math.round(ms)} ms`);
    if (status >= 400 && what.includes(' /api') && !type.includes('application/problem+json'))
      this.note(`${what}: ${status} is no problem document but ${type}`);
  }

  note(sentence: string): void {
    if (this.broken.length < 20) this.broken.push(sentence);
  }

  figures(): Record<string, number | string> {
    const all = [...this.statuses].sort(([a], [b]) => a - b).map(([status, n]) => `${status}: ${n}`);
    return {
      answers: this.times.length,
      'by status': all.join(', '),
      '95th, ms': Math.round(quantile(this.times, 0.95)),
      'longest, ms': Math.round(quantile(this.times, 1)),
    };
  }
}
