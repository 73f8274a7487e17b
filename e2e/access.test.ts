import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import { cell, makeBrowser, makeWorld, PLAN, press, until, type World } from './harness';

/** Every main view held against WCAG 2.2 A and AA by axe, in both themes, at rest and in the middle of work. */

jest.setTimeout(180_000);

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

let world: World;
let tools: Awaited<ReturnType<typeof makeBrowser>>;
beforeAll(async () => {
  [world, tools] = await Promise.all([makeWorld(), makeBrowser()]);
  await world.atBench('/bench/radios/tern-1', { plugged: true });
  const { id } = (await world.api<{ id: string }>('/api/jobs', 'POST', { kind: 'read', serial: 'LK204417' }))
    .body;
  await until(
    'the first read',
    async () => (await world.api<{ state: string }>(`/api/jobs/${id}`)).body.state === 'done',
  );
});
afterAll(async () => {
  await tools?.close();
  await world?.close();
});

/** What axe finds on the page as it stands, a line each. */
async function violations(): Promise<string[]> {
  const { page } = tools;
  await page.evaluate(AXE);
  const results = (await page.evaluate(() =>
    (window as unknown as { axe: { run: (options: object) => Promise<unknown> } }).axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    }),
  )) as AxeResults;
  expect(results.passes.length).toBeGreaterThan(10);
  return results.violations.flatMap(({ id, help, nodes }) =>
    nodes.slice(0, 3).map((node) => `${id} (${help}): ${node.target.join(' ')} ${node.html.slice(0, 160)}`),
  );
}

const SCREENS: [string, string, () => Promise<unknown>][] = [
  ['Plans', '', () => tools.page.waitForSelector('[aria-label=Plans] li')],
  [
    'a new plan',
    '',
    async () => {
      await press(tools.page, 'New plan');
      await press(tools.page, 'Make the plan');
      await tools.page.waitForSelector('main [role=alert]');
    },
  ],
  ['the plan', `plans/${PLAN}`, () => tools.page.waitForSelector('#cell-5-tx')],
  [
    'the plan while a cell is typed in',
    `plans/${PLAN}`,
    async () => {
      await tools.page.click(await cell(tools.page, 5, 'tx'));
      await tools.page.keyboard.type('438.4.8');
      await tools.page.keyboard.press('Enter');
      await tools.page.waitForSelector('#cell-message[role=alert]');
    },
  ],
  ...(['Fit 28', 'History', 'Arrange'] as const).map((name): [string, string, () => Promise<unknown>] => [
    `the plan with ${name}`,
    `plans/${PLAN}`,
    async () => {
      await tools.page.waitForSelector('#cell-5-tx');
      await press(tools.page, name);
      await tools.page.waitForSelector(name === 'Arrange' ? '#arrange-slot' : 'aside ul, aside ol');
    },
  ]),
  [
    'everything by name',
    `plans/${PLAN}`,
    async () => {
      await tools.page.waitForSelector('#cell-5-tx');
      await tools.page.keyboard.down('Control');
      await tools.page.keyboard.press('k');
      await tools.page.keyboard.up('Control');
      await tools.page.waitForSelector('[cmdk-item]');
    },
  ],
  [
    'Find',
    `find?plan=${PLAN}`,
    async () => {
      await tools.page.waitForSelector('datalist option');
      await press(tools.page, 'Search');
      await (await tools.page.waitForSelector('tbody input'))!.click();
    },
  ],
  [
    'the Bench before it writes',
    `bench?plan=${PLAN}`,
    async () => {
      await press(tools.page, 'Write to LK204417');
      await tools.page.waitForSelector('[aria-label="Before writing"]');
    },
  ],
];

describe.each(['light', 'dark'] as const)('in the %s theme', (theme) => {
  beforeAll(() => tools.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }]));
  test.each(SCREENS)('%s', async (_, path, prepare) => {
    await tools.page.goto(`${world.url}/${path}`);
    await prepare();
    expect(await violations()).toEqual([]);
  });
  test('the simulated bench', async () => {
    await tools.page.goto(world.bench);
    await tools.page.waitForSelector('button');
    expect(await violations()).toEqual([]);
  });
});
