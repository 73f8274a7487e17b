import { cpSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import * as fc from '../src/core/property.test.kit';
import { sql } from 'drizzle-orm';
import { applyEdit, editSchema, type Plan } from '../src/core/plan';
import { anyEditOn } from '../src/core/plan/edit.test.kit';
import { ternP2 } from '../src/core/models/tern-p2';
import { copies, makePglite, openDatabase, openFolder, plans, revisions, type DiskStep } from '../src/db';
import { letGo } from '../src/server/documents/held';
import { loadPlan } from '../src/server/plan-rows';
import { createPlan } from '../src/server/plans';
import { editPlan, stepBack } from '../src/server/revisions';
import { sealCopy } from '../src/server/copies';
import { seeRadio } from '../src/server/radios';
import { newMemory, UNITS } from '../src/sim/bench/units';
import { seeded } from '../src/sim/random';
import { Disk } from './disk';

/** What was answered to somebody, and so has to be there after any later cut. */
type Answered = { kind: 'edit'; documentId: string; revision: number } | { kind: 'copy'; id: string };
/** What happened, in order: steps of the disk, and answers in between. */
export type Happening = { step: DiskStep } | { answered: Answered };

export interface Recording {
  folder: string;
  happenings: Happening[];
}

/** Makes a database below `folder`, works on it with random edits, undos and sealed copies, and records what its files see. */
export async function record(folder: string, edits: number, seed: number): Promise<Recording> {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  await makePglite(folder);
  const base = join(folder, 'db');
  cpSync(base, join(folder, 'before'), { recursive: true });
  const happenings: Happening[] = [];
  const { database, close } = await openDatabase(() =>
    openFolder(base, (step) => void happenings.push({ step })),
  );
  const answered = (what: Answered) => void happenings.push({ answered: what });
  const random = seeded(seed);
  const owner = { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false } as const;
  const made = await Promise.all(
    ['One', 'Two', 'Three', 'Four'].map((name) => createPlan({ name, modelId: ternP2.id, owner })),
  );
  const now = made.map(({ plan, revision }) => ({ plan, revision }));
  const radioId = await seeRadio(
    {
      model: 'TERN-P2 ',
      serial: UNITS[0]!.serial,
      firmware: '1',
      region: 3,
      imageBytes: 8192,
      halfWritten: false,
      battery: null,
      module: 0,
    },
    ternP2,
  );
  const image = newMemory(UNITS[0]!);
  for (let n = 0; n < edits; n++) {
    const luck = random();
    if (luck < 0.06) {
      image[0x70 + Math.floor(random() * 16)] = Math.floor(random() * 256);
      answered({ kind: 'copy', id: await sealCopy(radioId, ternP2, image, 'read') });
    } else if (luck < 0.12) await database.execute(sql`checkpoint`);
    else {
      const change = async (target: (typeof now)[number], seed: number) => {
        const [edit] = fc.sample(anyEditOn(target.plan), { numRuns: 1, seed });
        const back = luck < 0.25 && target.revision > 1;
        const answer = await (
          back ? stepBack(target.plan.id, 'undo') : editPlan(target.plan.id, target.revision, edit!)
        ).catch(() => undefined);
        if (!answer) return;
        answered({ kind: 'edit', documentId: target.plan.id, revision: answer.revision });
        const done = back ? answer.edits![0]! : edit!;
        const after = (applyEdit(target.plan, done) as { value: Plan }).value;
        Object.assign(target, { plan: after, revision: answer.revision });
      };
      // One alone, or several at once, which share a commit.
      const chosen = luck < 0.6 ? [now[Math.floor(random() * now.length)]!] : now;
      await Promise.all(chosen.map((target) => change(target, Math.floor(random() * 2 ** 31))));
    }
  }
  // Not closed before the record ends: closing writes a checkpoint, and a power cut does not wait for one.
  const ended = happenings.slice();
  await close();
  return { folder, happenings: ended };
}

/** What is wrong with a database after a cut, in sentences; nothing where all that was answered is there. */
async function faultsOf(folder: string, answered: readonly Answered[]): Promise<string[]> {
  const faults: string[] = [];
  const opened = await openFolder(folder).catch((error: unknown) => String(error));
  if (typeof opened === 'string') return [`It does not open: ${opened}`];
  const { database, close } = opened;
  try {
    const log = await database.select().from(revisions);
    const there = new Set(log.map(({ documentId, revision }) => `${documentId} ${revision}`));
    const sealed = new Set((await database.select({ id: copies.id }).from(copies)).map(({ id }) => id));
    for (const one of answered)
      if (one.kind === 'copy' ? !sealed.has(one.id) : !there.has(`${one.documentId} ${one.revision}`))
        faults.push(`Answered and gone: ${JSON.stringify(one)}`);
    for (const row of await database.select().from(plans)) {
      letGo(row.id);
      let { document: plan } = await loadPlan(database, row.id);
      const own = log
        .filter(({ documentId }) => documentId === row.id)
        .sort((a, b) => b.revision - a.revision);
      if (own.length !== row.revision - 1)
        faults.push(`${row.id} is at ${row.revision} with a log of ${own.length}`);
      for (const { revision, inverse } of own) {
        const back = applyEdit(plan, editSchema.parse(inverse));
        if (!back.ok) {
          faults.push(`The log of ${row.id} does not lead back from ${revision}: ${back.reason}`);
          break;
        }
        plan = back.value;
      }
      if (plan.channels.length > 0)
        faults.push(`The log of ${row.id} leads back to something else than an empty plan`);
    }
    // The index and the table must agree, row by row.
    await database.execute(sql`set enable_seqscan = off`);
    const byIndex = await database.execute(
      sql`select count(*)::int as n from (select document_id, revision from revisions order by document_id, revision) x`,
    );
    if (Number((byIndex as unknown as { rows: { n: number }[] }).rows[0]!.n) !== log.length)
      faults.push('The index of the log and the log do not agree');
    await database.execute(sql`reindex table revisions`);
    await database.execute(sql`vacuum documents`);
  } catch (error) {
    faults.push(`It does not hold: ${String((error as Error).cause ?? error)}`);
  } finally {
    await close().catch((error: unknown) => faults.push(`It does not close: ${String(error)}`));
  }
  return faults;
}

export interface Cuts {
  cuts: number;
  /** Answers that had been given before the cuts, all together. */
  answered: number;
  faults: string[];
}

/**
 * Cuts the power at `cuts` random places of a recording and opens what is left. `lying` leaves out what was synced, as a
 * file system does that only says so: the faults that this must give show that the test would notice.
 */
export async function cutPower(
  { folder, happenings }: Recording,
  {
    cuts,
    seed,
    lying = false,
    until = Infinity,
  }: { cuts: number; seed: number; lying?: boolean; until?: number },
): Promise<Cuts> {
  const random = seeded(seed);
  const disk = new Disk(join(folder, 'db'), join(folder, 'before'));
  // One cut in ten while the tables are made, the others once something has been answered.
  const first = happenings.findIndex((one) => 'answered' in one);
  const places = Array.from({ length: cuts }, () => {
    const from = random() < 0.1 ? 0 : first;
    return from + Math.floor(random() * (happenings.length - from));
  }).sort((a, b) => a - b);
  const answered: Answered[] = [];
  const result: Cuts = { cuts: 0, answered: 0, faults: [] };
  for (const [index, happening] of happenings.entries()) {
    if (Date.now() > until) break;
    if ('answered' in happening) answered.push(happening.answered);
    else if (!lying || happening.step.kind !== 'sync') disk.take(happening.step);
    for (; places[0] === index; places.shift()) {
      const left = join(folder, 'cut');
      disk.cut(left, random);
      const faults = await faultsOf(left, answered);
      result.faults.push(...faults.map((fault) => `Cut at ${index} of ${happenings.length}: ${fault}`));
      result.cuts++;
      result.answered += answered.length;
      rmSync(left, { recursive: true, force: true });
    }
  }
  return result;
}
