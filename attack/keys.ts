import { makeBrowser, sees } from '../e2e/page';
import { makePlanWithGap, strikeAtRandom } from '../e2e/random-keys';
import { pick, seeded } from '../src/sim/random';
import type { World } from '../e2e/world';
import { Watch, type Report } from './figures';

/** Keys at random in the table, in a real browser, while code and answers are held back: no channel changes but where typing began. */
export async function strikeKeys(
  world: World,
  { rounds, seed, until }: { rounds: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const figures = { rounds: 0, keys: 0, 'typing began': 0 };
  const { page, close } = await makeBrowser();
  try {
    for (let n = 0; n < rounds && Date.now() < until; n++) {
      const modelId = pick(random, ['tern-p2', 'osprey-d7', 'curlew-x1']);
      const id = await makePlanWithGap(world, `Keys ${seed} ${n}`, modelId);
      await page.goto(`${world.url}/plans/${id}`);
      await sees(page, 'header [role=status]', /^Kept, revision \d+$/);
      await page.waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
      await page.focus('[role=grid]');
      const keys = 24 + Math.floor(random() * 60);
      const { began, wrong } = await strikeAtRandom(page, world, id, random, keys);
      figures.rounds++;
      figures.keys += keys;
      figures['typing began'] += began;
      for (const sentence of wrong) watch.note(`Round ${n}, ${modelId}: ${sentence}`);
    }
  } finally {
    await close();
  }
  return { attack: 'keys', figures, broken: watch.broken };
}
