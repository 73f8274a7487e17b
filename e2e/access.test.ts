import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import { cell, PLAN, press, until, worldAndBrowser } from './harness';

/** Every main view held against WCAG 2.2 A and AA by axe, in both themes, at rest and in the middle of work. */

jest.setTimeout(180_000);

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const at = worldAndBrowser();
const { world, page } = at;
beforeAll(async () => {
  await world().atBench('/bench/radios/tern-1', { plugged: true });
  const { id } = (
    await world().api<{ id: string }>('/api/jobs', 'POST', {
      kind: 'read',
      radioId: await world().radioId('LK204417'),
    })
  ).body;
  await until(
    'the first read',
    async () => (await world().api<{ state: string }>(`/api/jobs/${id}`)).body.state === 'done',
  );
});

/** What axe finds on the page as it stands, a line each. */
async function violations(): Promise<string[]> {
  await page().evaluate(AXE);
  const results = (await page().evaluate(() =>
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
  ['Plans', '', () => page().waitForSelector('[aria-label=Plans] li')],
  [
    'a new plan',
    '',
    async () => {
      await press(page(), 'New plan');
      await press(page(), 'Make the plan');
      await page().waitForSelector('main [role=alert]');
    },
  ],
  ['the plan', `plans/${PLAN}`, () => page().waitForSelector('#cell-5-tx')],
  [
    'the plan while a cell is typed in',
    `plans/${PLAN}`,
    async () => {
      await page().click(await cell(page(), 5, 'tx'));
      await page().keyboard.type('438.4.8');
      await page().keyboard.press('Enter');
      await page().waitForSelector('#cell-message[role=alert]');
    },
  ],
  ...(['Fit 28', 'History', 'Arrange'] as const).map((name): [string, string, () => Promise<unknown>] => [
    `the plan with ${name}`,
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await press(page(), name);
      await page().waitForSelector(name === 'Arrange' ? '#arrange-slot' : 'aside ul, aside ol');
    },
  ]),
  [
    'everything by name',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await page().keyboard.down('Control');
      await page().keyboard.press('k');
      await page().keyboard.up('Control');
      await page().waitForSelector('[cmdk-item]');
    },
  ],
  ...(['Sides and banks', 'Skip sets', 'Scan edges and homes', 'Quick set-ups'] as const).map(
    (name): [string, string, () => Promise<unknown>] => [
      `Organise: ${name}`,
      'plans/pl_threedays/organise',
      async () => {
        await page().waitForSelector('[role=tab]');
        await page().$$eval(
          '[role=tab]',
          (tabs, wanted) =>
            tabs
              .find((tab) => tab.textContent!.startsWith(wanted))!
              .dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 })),
          name,
        );
        await page().waitForSelector('[role=tabpanel][data-state=active] button');
      },
    ],
  ),
  [
    'the plan on six radios, and what becomes of one channel',
    `plans/${PLAN}/radios`,
    async () => {
      await (await page().waitForSelector('[role=cell] button'))!.click();
      await press(page(), 'Make one for the Gannet M8');
      await page().waitForSelector('form [role=combobox]');
    },
  ],
  [
    'the bytes of a card',
    'plans/pl_harbouroffice/bytes',
    async () => {
      await (await page().waitForSelector('table button'))!.click();
    },
  ],
  [
    'Find',
    `find?plan=${PLAN}`,
    async () => {
      await page().waitForSelector('datalist option');
      await press(page(), 'Search');
      await (await page().waitForSelector('tbody [role=checkbox]'))!.click();
    },
  ],
  [
    'the Bench before it writes',
    `bench?plan=${PLAN}`,
    async () => {
      await press(page(), 'Write to LK204417');
      await page().waitForSelector('[aria-label="Before writing"]');
    },
  ],
];

describe.each(['light', 'dark'] as const)('in the %s theme', (theme) => {
  beforeAll(() => page().emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }]));
  test.each(SCREENS)('%s', async (_, path, prepare) => {
    await page().goto(`${world().url}/${path}`);
    await prepare();
    expect(await violations()).toEqual([]);
  });
  test('the simulated bench', async () => {
    await page().goto(world().bench);
    await page().waitForSelector('button');
    expect(await violations()).toEqual([]);
  });
});
