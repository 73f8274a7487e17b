import { violationsInBothThemes } from './axe';
import { cell, PLAN, press, until, worldAndBrowser } from './harness';

/** Every main view held against WCAG 2.2 A and AA by axe, in both themes, at rest and in the middle of work. */

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

const SCREENS: [string, string, () => Promise<unknown>][] = [
  ['data and backups', 'data', () => page().waitForSelector('[aria-label="What is kept"]')],
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
    'the plan by facts, sorted, with all that is chosen',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await page().type('#find-in-plan', '2 m -dmr hill');
      await page().waitForSelector('[aria-label="What is shown"]');
      await press(page(), 'Without not DMR');
      await page().focus('[role=grid]');
      await page().keyboard.down('Control');
      await page().keyboard.press('a');
      await page().keyboard.up('Control');
      await press(page(), 'Chosen');
      await page().waitForSelector('#chosen-Access');
      await press(page(), 'Show by facts');
      await page().waitForSelector('[role=dialog] button');
      await page().keyboard.press('Escape');
    },
  ],
  [
    'the plan with what takes it out',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await press(page(), 'Take out');
      await page().waitForSelector('[aria-label="On paper"]');
    },
  ],
  [
    'what fills a radio in blocks',
    `find?plan=${PLAN}&at=52.06,-29.84&name=Ketterby&km=40`,
    async () => {
      await page().waitForSelector('tbody tr[data-row]');
      await press(page(), 'Fill in blocks');
      await page().waitForSelector('[aria-label="Fill in blocks"] li');
    },
  ],
  ['the plan on paper', `plans/${PLAN}/paper?as=wall`, () => page().waitForSelector('.leaf')],
  [
    'the plan with what has changed',
    `plans/${PLAN}#news`,
    () => page().waitForSelector('[aria-label="What has changed"] [role=status]'),
  ],
  [
    'the plan after a paste with bad cells and rows',
    'plans/pl_threedays',
    async () => {
      await page().waitForSelector('#cell-1-tx');
      await page().evaluate(() => {
        const data = new DataTransfer();
        data.setData('text/plain', 'Receive\tName\tTone\n145,7625\tQuill Top\tloud\nnothing\tNowhere\t88.5');
        document
          .querySelector('[role=grid]')!
          .dispatchEvent(
            new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
          );
      });
      await page().waitForSelector('[aria-label="Not taken"] li');
    },
  ],
  [
    'the plan with its columns to choose',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await press(page(), 'Columns');
      await page().waitForSelector('[aria-label="Columns that are typed"] li');
      await (await page().waitForSelector('::-p-aria([name="Tags"][role="checkbox"])'))!.click();
    },
  ],
  [
    'find and replace',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await page().keyboard.down('Control');
      await page().keyboard.press('h');
      await page().keyboard.up('Control');
      await page().waitForSelector('#replace-find');
      await page().type('#replace-find', 'weather');
      await page().waitForSelector('[aria-label="What is replaced"] li');
    },
  ],
  [
    'the plan as it was, held against today',
    'plans/pl_threedays',
    async () => {
      await page().waitForSelector('#cell-1-tx');
      await press(page(), 'History');
      await press(page(), 'Mark revision 1');
      await page().keyboard.type('as it was made');
      await page().keyboard.press('Enter');
      await press(page(), 'Look at “as it was made”');
      await page().waitForSelector('[aria-label="What is otherwise today"] li');
    },
  ],
  [
    'what can be mended at once, and a cell that offers what applies',
    `plans/${PLAN}`,
    async () => {
      await page().waitForSelector('#cell-5-tx');
      await press(page(), 'Mend what can be…');
      await page().waitForSelector('[aria-label="What would be done"] li');
      await page().click(await cell(page(), 5, 'access'));
      await page().keyboard.type('8');
      await page().waitForSelector('[role=listbox] [role=option]');
      await page().keyboard.press('ArrowDown');
    },
  ],
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
    'Find before a search, with the directories',
    `find?plan=${PLAN}`,
    async () => {
      await page().waitForSelector('[role=application] canvas');
      await press(page(), 'Directories');
      await page().waitForSelector('[aria-label="Account for the Isles Ledger"]');
    },
  ],
  [
    'Find along a route',
    `find?plan=${PLAN}&route=52.06,-29.84;51.203,-30.6988&name=Ketterby;Garrowick&km=15&days=2`,
    async () => {
      await (await page().waitForSelector('tbody [role=checkbox]'))!.click();
      await page().waitForSelector('[aria-label="Preview of the slots"]');
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

test.each(SCREENS)('%s, in both themes', async (name, path, prepare) => {
  await page().goto(`${world().url}/${path}`);
  await prepare();
  expect(await violationsInBothThemes(page(), name === 'the plan' ? 40 : undefined)).toEqual([]);
});
test('the simulated bench, in both themes', async () => {
  await page().goto(world().bench);
  await page().waitForSelector('button');
  expect(await violationsInBothThemes(page())).toEqual([]);
});

/** A node of the accessibility tree, as far as it is looked at here. */
interface Told {
  role: string;
  name?: string;
  description?: string;
  children?: Told[];
}
const flat = (node: Told): Told[] => [node, ...(node.children ?? []).flatMap(flat)];

test('what a screen reader tells of the first screenful reads as sentences', async () => {
  await page().goto(`${world().url}/plans/${PLAN}`);
  await page().waitForSelector('#cell-5-tx');
  await until(
    'the strip',
    async () => (await page().$$('[aria-label="Bands of this plan"] [role=listbox]')).length > 3,
  );
  await until(
    'what Check says at the cell',
    async () => (await page().$$('[role=gridcell][aria-description]')).length > 0,
  );
  const tree = (await page().accessibility.snapshot({ interestingOnly: false })) as Told;
  const all = flat(tree);
  const named = (role: string) => all.filter((node) => node.role === role).map(({ name = '' }) => name);
  // Nothing that can be worked is nameless, and no name is a code or a picture's.
  for (const role of [
    'button',
    'link',
    'textbox',
    'searchbox',
    'tab',
    'checkbox',
    'combobox',
    'grid',
    'listbox',
  ])
    for (const name of named(role)) {
      expect(`${role} “${name}”`).toMatch(/“.*[\p{L}]{2,}.*”/u);
      expect(name).not.toMatch(/[_{}<>]|undefined|null|\[object/);
    }
  expect(named('columnheader')).toEqual(
    expect.arrayContaining(['Findings', 'Slot', 'Transmit Show by transmit', 'Scan Show by scan']),
  );
  const heads = named('rowheader');
  expect(heads.slice(0, 4).map((name) => name.replace(/ [A-Z0-9 ]+$/, ''))).toEqual([
    'Calling 2 m',
    'Calling 70 cm',
    'Club simplex',
    'Ullsmere Hill',
  ]);
  // The strip says what its picture shows.
  const [band] = named('listbox');
  expect(band).toMatch(
    /^2 m, \d+ channels by frequency.*; you may transmit from \d.* to \d.*; arrow keys choose/,
  );
  // What is wrong with a cell is told with it.
  const told = all.filter(({ description }) => description?.startsWith('stop: '));
  expect(told.map(({ description }) => description)).toEqual(
    expect.arrayContaining([expect.stringMatching(/^stop: Opens nothing: the Tern P2 has no 110.8 Hz/)]),
  );
});
