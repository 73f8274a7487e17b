import { createPlanWork, type WorkMessage } from './plan-work';

/** The worker beside the plan page: holds plan, fit and check, so that typing never waits for them. */
const work = createPlanWork();
addEventListener('message', ({ data }: MessageEvent<WorkMessage>) => {
  for (const answer of work(data)) postMessage(answer);
});
