import { kept, makeBrowser, strike } from './page';
import { makeWorld, PLAN, type World } from './world';

/** A channel as the API gives it; what the tests ask of it. */
export interface Channel {
  id: string;
  slot: number;
  name: string;
  rx: number;
  tx: number | null;
  access: { send?: { tone: number } | null };
  power: number;
  scan: boolean;
  mode: string;
}

/** The demo's plan as it is on disk. */
export function demoPlan(world: () => World) {
  const read = async () =>
    (await world().api<{ plan: { channels: Channel[] }; revision: number }>(`/api/plans/${PLAN}`)).body;
  const channels = async () => (await read()).plan.channels;
  return {
    read,
    channels,
    inSlot: async (slot: number) => (await channels()).find((channel) => channel.slot === slot),
    undo: () => world().api(`/api/plans/${PLAN}/undo`, 'POST'),
  };
}

/** For a file of tests: a world and a browser, made before the first and closed after the last. */
export function worldAndBrowser(options?: Parameters<typeof makeWorld>[0]) {
  let world: World;
  let tools: Awaited<ReturnType<typeof makeBrowser>>;
  beforeAll(async () => {
    [world, tools] = await Promise.all([makeWorld(options), makeBrowser()]);
  });
  afterAll(async () => {
    await tools?.close();
    await world?.close();
  });
  return {
    world: () => world,
    page: () => tools.page,
    /** What pages have complained of so far. */
    errors: () => tools.errors,
    ...demoPlan(() => world),
  };
}

/**
 * For a file of tests of the plan screen: a world and a browser for them all, the demo's plan opened before each with the
 * focus on its table, and after each what was done kept and nothing complained of.
 */
export function onPlanPage() {
  const at = worldAndBrowser();
  const { world, page } = at;
  beforeEach(async () => {
    await page().goto(`${world().url}/plans/${PLAN}`);
    await kept(page());
    await page().waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
    await page().focus('[role=grid]');
  });
  // The API knows of a change before the page hears of it; a page that is left in between asks whether it may be.
  afterEach(async () => {
    if (await page().$('header [role=status]')) await kept(page());
    expect(at.errors().splice(0)).toEqual([]);
  });
  return {
    ...at,
    /** The id of the cell that has the focus. */
    active: async () =>
      (await page().waitForSelector('[role=grid]'))!.evaluate((grid) =>
        grid.getAttribute('aria-activedescendant'),
      ),
    keys: (...names: string[]) => strike(page(), ...names),
  };
}
