import { writeFileSync } from 'node:fs';
import type { Job, JobRequest } from '../core/bench';
import type { Model } from '../core/models';
import type { PlanId, RadioId } from '../core/plan';
import type { UnitSpec } from '../sim/bench/units';
import { until } from '../core/until.test.kit';
import { getJob, startJob } from './jobs';
import { Problem } from './problem';

/** What people were told when something went wrong, gathered by a test and held against docs/faults.md; not used by the application. */

/** A radio with its link, and what a test knows of it. */
export interface Link {
  kind: 'stream' | 'block' | 'live' | 'card';
  unit: UnitSpec;
  model: Model;
  radioId: RadioId;
  /** Two plans in turn: one is in the radio, and the other is to be. */
  plans: { planId: PlanId; revision: number }[];
  /** Which of them is in it. */
  turn: number;
  /** What the radio holds now, and what the other plan would make of it. */
  before: Uint8Array;
  wanted: Uint8Array;
}

export const DOC = 'docs/faults.md';

/** By fault and link: each sentence with its figures taken out, so that it is the same each time. */
const told = new Map<string, Set<string>>();
const figuresOut = (text: string) =>
  text
    .replaceAll(/\/\S*veridon-faults\S*/g, 'FOLDER')
    .replaceAll(/bench\/\S+\b/g, 'the port')
    .replaceAll(/reader\/\S+\b/g, 'the reader')
    .replaceAll(/“[^”]*”/g, '“the plan”')
    .replaceAll(/\b(LK\d+|OR\d+)\b/g, 'the unit')
    .replaceAll(/\b\d[\d,.]*\b/g, '#');

export function note(fault: string, link: string, said: string): void {
  const key = `${fault}|${link}`;
  told.set(key, (told.get(key) ?? new Set()).add(figuresOut(said)));
}

/** The rows of the table so far, and of how many faults they are. */
export function toldLines(kinds: readonly string[]): { faults: number; lines: string[] } {
  const order = [...new Set([...told.keys()].map((key) => key.split('|')[0]!))];
  const lines = order.flatMap((fault) =>
    kinds.flatMap((kind) =>
      [...(told.get(`${fault}|${kind}`) ?? [])]
        .sort()
        .map((said) => `| ${fault} | ${kind} | ${said.replaceAll('|', '/')} |`),
    ),
  );
  return { faults: order.length, lines };
}

export function writeTold(lines: readonly string[]): void {
  writeFileSync(
    DOC,
    `# What can go wrong between Veridon and a radio, and what is said\n\nMade by \`src/server/faults.test.ts\` with VERIDON_FAULTS=write; the same test holds it against what is said. Figures stand as #. After each of these the radio is as it\nwas, or as the plan wants it, or is half written and says so, and going on with the write brings it to its end; no plan, sealed copy or entry of the log is lost.\n\n| what goes wrong | link | what the person is told |\n|---|---|---|\n${lines.join('\n')}\n`,
  );
}

export const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

export async function ended(id: string): Promise<Job> {
  return until('the end of the job', async () => {
    const job = await getJob(id);
    return job.state !== 'running' && job;
  });
}
/** Runs a job to its end; one that is refused is told as it was refused. */
export async function run(
  request: JobRequest,
  meanwhile?: (job: Job) => Promise<unknown>,
): Promise<Job | Problem> {
  try {
    const started = await startJob(request);
    await meanwhile?.(started);
    return await ended(started.id);
  } catch (error) {
    if (error instanceof Problem) return error;
    throw error;
  }
}
export const wordsOf = (end: Job | Problem) => (end instanceof Problem ? end.detail : end.message);
