import { ketterbyWeekend } from '../../demo';
import { openDatabase, plans } from '../db';
import { writing } from './database';
import { closeLostJobs } from './jobs';
import { hasNoPlans } from './plans';
import { Problem } from './problem';

/**
 * Opens the data before the first page is asked for, tidies up after a stop in the middle of a job, and puts the demo
 * into an empty database where VERIDON_DEMO asks for it. Ends the process with a clear word where the data cannot be used.
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
    await closeLostJobs();
    if (process.env.VERIDON_DEMO && (await hasNoPlans())) {
      const plan = ketterbyWeekend();
      const database = await writing();
      await database
        .insert(plans)
        .values({ id: plan.id, name: plan.name, modelId: plan.modelId, document: plan, revision: 1 });
    }
  } catch (error) {
    console.error(error instanceof Problem ? error.detail : error);
    process.exit(1);
  }
}
