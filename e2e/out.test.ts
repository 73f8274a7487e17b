import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chooseFirst, dropAnywhere, dropFile, newPlan } from './at-find';
import { onPlanPage, press, sees, textOf, until, PLAN, type Channel } from './harness';

/** A plan that leaves Veridon and comes back: as files, and on paper. */

const at = onPlanPage();
const folder = mkdtempSync(join(tmpdir(), 'veridon-out-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const channelsOf = async (id: string) =>
  (await at.world().api<{ plan: { channels: Channel[] } }>(`/api/plans/${id}`)).body.plan.channels;
const content = (channels: readonly Channel[]) =>
  channels.map(({ id: _, fitted: _fitted, ...rest }: Channel & { fitted?: unknown }) => rest);

/** The file that the browser saved under a name, once it is whole. */
async function saved(name: string): Promise<Uint8Array> {
  await until(`the file ${name}`, async () => readdirSync(folder).includes(name));
  return readFileSync(join(folder, name));
}

test('a plan goes out as a spreadsheet and comes into another plan slot for slot; some of it goes out alone', async () => {
  const page = at.page();
  const session = await page.createCDPSession();
  await session.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
  await press(page, 'Take out');
  await sees(page, '[role=dialog][aria-label="Take out"]', /GPX.*without.*whose place nobody knows/s);
  await press(page, 'XLSX a spreadsheet');
  const sheet = await saved('ketterby-weekend.xlsx');
  const id = await newPlan(at.world(), 'By spreadsheet');
  await page.goto(`${at.world().url}/plans/${id}`);
  await page.waitForSelector('[role=grid]');
  await dropFile(page, 'list.xlsx', sheet);
  await sees(page, '[aria-label="The file list.xlsx"]', /20 rows, spreadsheet, with headings.*20 channels/s);
  await press(page, 'Put in 20 channels');
  await until('twenty channels', async () => (await channelsOf(id)).length === 20);
  expect(content(await channelsOf(id))).toEqual(content(await channelsOf(PLAN)));
  // Three rows, as GeoJSON.
  await chooseFirst(page, 3);
  await press(page, 'Take out');
  await sees(page, '[role=dialog][aria-label="Take out"]', 'The 3 channels chosen');
  await press(page, 'GeoJSON places for a map');
  const { features } = JSON.parse(Buffer.from(await saved('by-spreadsheet.geojson')).toString()) as {
    features: { properties: { Slot: string } }[];
  };
  expect(features.map(({ properties }) => properties.Slot)).toEqual(['0', '1', '2']);
});

test('a plan that was taken out whole is opened wherever it is dropped, with all that it holds', async () => {
  const page = at.page();
  const { body } = await at.world().api<{ plan: Record<string, unknown> }>(`/api/plans/${PLAN}`);
  await page.goto(at.world().url);
  await sees(page, '[aria-label=Plans]', 'Ketterby weekend');
  await dropAnywhere(page, 'from-a-friend.json', Buffer.from(JSON.stringify(body.plan)));
  await page.waitForSelector('[role=grid]');
  const id = new URL(page.url()).pathname.split('/').at(-1)!;
  expect(id).not.toBe(PLAN);
  const { body: opened } = await at.world().api<{ plan: Record<string, unknown> }>(`/api/plans/${id}`);
  for (const part of ['name', 'owner', 'channels', 'zones', 'settings'])
    expect({ part, is: opened.plan[part] }).toEqual({ part, is: body.plan[part] });
  // Rows want a plan to go into.
  await page.goto(at.world().url);
  await sees(page, '[aria-label=Plans]', 'Ketterby weekend');
  await dropAnywhere(page, 'list.csv', Buffer.from('Name,Receive\nHill,145.6'));
  await sees(page, '[role=alert]', 'Open the plan that they go into');
});

test('a file is a directory of one’s own, searched as the others are, until it is taken away', async () => {
  const page = at.page();
  const file = join(folder, 'friends.csv');
  writeFileSync(
    file,
    'Name,Receive,Shift,Lat,Lon\nOur own hill,145.7625,-0.6,52.07,-29.85\nNowhere,145.7,-0.6,,',
  );
  await page.goto(`${at.world().url}/find?plan=${PLAN}&at=52.06,-29.84&name=Ketterby&km=5`);
  await sees(page, '[aria-label=Stations] [role=status]', /\d+ stations?/);
  await press(page, 'Directories');
  const [chooser] = await Promise.all([page.waitForFileChooser(), press(page, 'A file of your own…')]);
  await chooser.accept([file]);
  await sees(page, '[role=dialog]', /friends.csv: 1 stations are kept. 1 have no place and are not/);
  await page.keyboard.press('Escape');
  await sees(page, 'tbody', 'Our own hill');
  await press(page, 'Directories');
  await press(page, 'Remove friends.csv');
  await until('it to be gone', async () => !(await textOf(page, 'tbody')).includes('Our own hill'));
});

test('a list that is typed as somebody jots it down comes into the plan', async () => {
  const page = at.page();
  const id = await newPlan(at.world(), 'Jotted');
  await page.goto(`${at.world().url}/plans/${id}`);
  await page.waitForSelector('[role=grid]');
  await at.keys('Control+k');
  await page.waitForSelector('[role=dialog] input');
  await page.keyboard.type('type or paste a list');
  await sees(page, '[role=dialog]', 'Type or paste a list of stations');
  await at.keys('Enter');
  await page.waitForSelector('#typed-list');
  await page.type('#typed-list', 'Ullsmere Hill 145.6125 -0.6 88.5\nKetterby Quay 433.500 listen\nno idea\n');
  await press(page, 'Read it');
  await sees(
    page,
    '[aria-label="The file typed list.txt"]',
    /a list of 3 lines.*2 channels, 1 row not taken/s,
  );
  await press(page, 'Put in 2 channels');
  await until('both', async () => (await channelsOf(id)).length === 2);
  expect(await channelsOf(id)).toMatchObject([
    { name: 'Ullsmere Hill', rx: 145_612_500, tx: 145_012_500 },
    { name: 'Ketterby Quay', rx: 433_500_000, tx: null },
  ]);
});

test('on paper: a card that folds, a list for the wall, a sheet a bank, each as PDF too', async () => {
  const page = at.page();
  await page.goto(`${at.world().url}/plans/${PLAN}/paper`);
  expect(await textOf(page, '.card-face')).toMatch(/Ketterby weekend.*Tern P2.*000Calling 2 m145\.500/s);
  // What is on the screen to print it is not printed itself.
  await page.emulateMediaType('print');
  const shown = (selector: string) =>
    page.$eval(selector, (one) => (one as HTMLElement).getClientRects().length > 0);
  expect([await shown('main > header'), await shown('nav'), await shown('.leaf')]).toEqual([
    false,
    false,
    true,
  ]);
  await page.emulateMediaType('screen');
  for (const as of ['card', 'wall', 'banks']) {
    await page.goto(`${at.world().url}/plans/${PLAN}/paper?as=${as}`);
    const response = await fetch(`${at.world().url}/api/plans/${PLAN}/paper?as=${as}`);
    expect([response.status, response.headers.get('Content-Type')]).toEqual([200, 'application/pdf']);
    const bytes = Buffer.from(await response.arrayBuffer());
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    const pages = (bytes.toString('latin1').match(/\/Type\s*\/Page\b/g) ?? []).length;
    expect({ as, pages }).toEqual({ as, pages: as === 'banks' ? Math.max(1, pages) : 1 });
  }
});

test('on the card a name may be cut, and no figure is: half a frequency is worse than none', async () => {
  const page = at.page();
  const id = await newPlan(at.world(), 'The widest');
  const file = Buffer.from(
    [
      'Name,Receive,Transmit,Access',
      'WWWW Widest name there is MMMM 3,446.00625,438.4875,D023N/D754I',
      'Hill,145.6125,-0.6,94.8/100.0',
      'Quay,433.0125,440.6125,250.3/254.1',
    ].join('\n'),
  ).toString('base64');
  const { status } = await at.world().api('/api/import', 'POST', { plan: id, base64: file });
  expect(status).toBe(200);
  await page.goto(`${at.world().url}/plans/${id}/paper?as=card`);
  const cells = await page.$$eval('.card-face tbody tr > *', (all) =>
    all.map((one) => {
      const text = document.createRange();
      text.selectNodeContents(one);
      return {
        text: one.textContent,
        name: one.classList.contains('card-name'),
        cut: text.getBoundingClientRect().right > one.getBoundingClientRect().right + 0.5,
      };
    }),
  );
  expect(cells.filter(({ name, cut }) => cut && name).length).toBe(1);
  expect(cells.flatMap(({ text, name, cut }) => (cut && !name ? [text] : []))).toEqual([]);
  expect(cells.map(({ text }) => text)).toEqual(
    expect.arrayContaining(['438.4875', 'D023N/D754I', '446.00625']),
  );
});
