import { ketterbyWeekend, shelf } from '../../demo';
import { openDatabase, type Database } from '../db';
import { joinBus } from './bus';
import { problemOf, writing } from './database';
import { beat, BEAT_MS, forgetDead } from './instance';
import { closeLostJobs } from './jobs';
import { keepBackingUp } from './keeping';
import { resumeLives } from './live';
import { closeBrokenOff, forgetOrphans } from './own-directories';
import { forgetOldChanges } from './once';
import { forgetRolls, sayBrokenOff } from './people-load';
import { insertDocument, stageDocument } from './documents/rows';
import { hasNoPlans } from './plans';
import { keyOfEnvironment } from './secrets';
import { forgetStaged } from './documents/staging';

/** What answers the interface, loaded with the start. */
export { dispatch } from './api/dispatch';

/** How long until a database server that is away is asked again, ms. */
const AGAIN_MS = 3000;

/** When what nobody needs any more is forgotten: not while the first page is waited for, ms. */
const FORGET_MS = 5000;

/** Where it does not go now the next start does it. */
async function forget(database: Database): Promise<void> {
  await forgetOldChanges(database);
  await forgetDead(database);
  await forgetRolls();
  await forgetStaged(database);
}

/** Tidies up what earlier processes left, and puts the demo into an empty database where VERIDON_DEMO asks for it. */
async function settle(): Promise<void> {
  const database = await writing();
  await beat(database);
  await closeLostJobs();
  await resumeLives();
  await closeBrokenOff();
  await forgetOrphans();
  await sayBrokenOff();
  setTimeout(() => forget(database).catch(() => {}), FORGET_MS).unref();
  if (!process.env.VERIDON_DEMO || !(await hasNoPlans())) return;
  // Whole or not at all: a start that is broken off is made good by the next.
  await database.transaction(async (transaction) => {
    for (const plan of [...shelf(), ketterbyWeekend()])
      await insertDocument(transaction, plan, await stageDocument(transaction, plan));
  });
}

/** Beside other processes on one server: shows that this one lives, and closes what a dead one left. */
function beatOn(): void {
  setInterval(() => {
    writing()
      .then(async (database) => {
        await beat(database);
        await closeLostJobs();
        await resumeLives();
        await closeBrokenOff();
      })
      // Away or full: every request says so by itself; the next beat tries again.
      .catch(() => {});
  }, BEAT_MS).unref();
}

/**
 * Opens the data before the first page is asked for. A data directory that cannot be used ends the process with a clear
 * word; a database server that is away is waited for, and every request says meanwhile that it is.
 */
export async function start(): Promise<void> {
  const stop = () => {
    // Open connections of browsers must not keep the data directory locked after the person has said stop.
    void openDatabase()
      .then((opened) => opened.close())
      .finally(() => process.exit(0));
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  try {
    // Checked at the start, not when a secret is first wanted.
    keyOfEnvironment();
  } catch (error) {
    console.error(problemOf(error)?.detail ?? error);
    process.exit(1);
  }
  try {
    await settle();
  } catch (error) {
    const problem = problemOf(error);
    console.error(problem?.detail ?? error);
    const canRead = await openDatabase().then(
      () => problem?.kind === 'data-directory',
      () => false,
    );
    if (problem?.kind !== 'database-away' && !canRead) process.exit(1);
    if (canRead) console.error('Veridon is read-only until there is room.');
    const again = () => setTimeout(() => settle().catch(again), AGAIN_MS).unref();
    again();
  }
  keepBackingUp();
  if (process.env.DATABASE_URL) beatOn();
  joinBus();
}
