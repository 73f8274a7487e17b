import {
  cell,
  kept,
  makeBrowser,
  makeWorld,
  pause,
  press,
  sees,
  strike,
  textOf,
  type,
  until,
  type World,
} from './harness';

/** The table as a spreadsheet, everything by name, and the band strip as a control: by keyboard and mouse. */

jest.setTimeout(180_000);

const PLAN = 'pl_ketterbyweekend';
interface Channel {
  id: string;
  slot: number;
  name: string;
  rx: number;
  tx: number | null;
  power: number;
  scan: boolean;
  mode: string;
}

let world: World;
let tools: Awaited<ReturnType<typeof makeBrowser>>;
beforeAll(async () => {
  [world, tools] = await Promise.all([makeWorld(), makeBrowser()]);
});
afterAll(async () => {
  await tools?.close();
  await world?.close();
});

const channels = async () =>
  (await world.api<{ plan: { channels: Channel[] } }>(`/api/plans/${PLAN}`)).body.plan.channels;
const inSlot = async (slot: number) => (await channels()).find((channel) => channel.slot === slot);
const active = () => tools.page.$eval('[role=grid]', (grid) => grid.getAttribute('aria-activedescendant'));
const keys = (...names: string[]) => strike(tools.page, ...names);
/** Hands a text to the table as the clipboard would. */
const paste = (text: string) =>
  tools.page.evaluate((block) => {
    const data = new DataTransfer();
    data.setData('text/plain', block);
    document
      .querySelector('[role=grid]')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  }, text);

beforeEach(async () => {
  await tools.page.goto(`${world.url}/plans/${PLAN}`);
  await kept(tools.page);
  await tools.page.waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
  await tools.page.focus('[role=grid]');
});

test('arrows, Home, End, Tab and Page keys walk through the cells; Tab leaves the table at its end', async () => {
  await until('the focus', async () => (await active()) === 'cell-0-name');
  await keys('ArrowDown', 'ArrowDown', 'ArrowRight');
  expect(await active()).toBe('cell-2-rx');
  await keys('Home');
  expect(await active()).toBe('cell-2-slot');
  await keys('End', 'Tab');
  expect(await active()).toBe('cell-3-name');
  await keys('Shift+Tab');
  expect(await active()).toBe('cell-2-scan');
  await keys('Control+End');
  expect(await active()).toBe('cell-20-scan');
  await keys('Tab');
  expect(await tools.page.evaluate(() => document.activeElement?.getAttribute('role'))).not.toBe('grid');
});

test('typing replaces, F2 keeps the text, Enter goes down, Esc throws away', async () => {
  const { page } = tools;
  await page.click(await cell(page, 1, 'name'));
  await page.keyboard.type('Calling U');
  await keys('Enter');
  expect(await active()).toBe('cell-2-name');
  await kept(page);
  expect((await inSlot(1))!.name).toBe('Calling U');
  await page.click(await cell(page, 1, 'name'));
  await keys('F2');
  await page.keyboard.type('HF');
  await keys('Enter');
  await kept(page);
  expect((await inSlot(1))!.name).toBe('Calling UHF');
  await page.click(await cell(page, 1, 'name'));
  await page.keyboard.type('Lost');
  await keys('Escape');
  await sees(page, await cell(page, 1, 'name'), 'Calling UHF');
});

test('a value goes to all that is chosen with Ctrl Enter, down with Ctrl D, and as one step of undo each', async () => {
  const { page } = tools;
  await page.click(await cell(page, 3, 'power'));
  await keys('Shift+ArrowDown', 'Shift+ArrowDown');
  await page.keyboard.type('low');
  await keys('Control+Enter');
  await kept(page);
  expect(
    (await channels())
      .filter((channel) => channel.slot >= 3 && channel.slot <= 5)
      .map((channel) => channel.power),
  ).toEqual([1000, 1000, 1000]);
  await page.click(await cell(page, 2, 'mode'));
  await page.keyboard.type('nfm');
  await keys('Enter');
  await page.click(await cell(page, 2, 'mode'));
  await keys('Shift+ArrowDown', 'Shift+ArrowDown', 'Control+d');
  await kept(page);
  expect(
    (await channels())
      .filter((channel) => channel.slot >= 2 && channel.slot <= 4)
      .map((channel) => channel.mode),
  ).toEqual(['NFM', 'NFM', 'NFM']);
  await keys('Control+z', 'Control+z', 'Control+z');
  await until(
    'three undos',
    async () => (await inSlot(3))?.power === 4000 && (await inSlot(2))?.mode === 'FM',
  );
});

test('rows are chosen with Ctrl and the mouse; L and S act on them all', async () => {
  const { page } = tools;
  await page.click(await cell(page, 3, 'rx'));
  await page.keyboard.down('Control');
  await page.click(await cell(page, 6, 'rx'));
  await page.click(await cell(page, 9, 'rx'));
  await page.keyboard.up('Control');
  await sees(page, 'footer', '3 chosen');
  await page.keyboard.press('s');
  await kept(page);
  const chosen = async () => (await channels()).filter((channel) => [3, 6, 9].includes(channel.slot));
  expect((await chosen()).map((channel) => channel.scan)).toEqual([false, false, false]);
  expect((await inSlot(4))!.scan).toBe(true);
  await page.keyboard.press('l');
  await kept(page);
  expect((await chosen()).map((channel) => channel.tx)).toEqual([null, null, null]);
  await keys('Control+z', 'Control+z');
  await until('both undone', async () =>
    (await chosen()).every((channel) => channel.scan && channel.tx !== null),
  );
});

test('a block is copied for a spreadsheet, and one from a spreadsheet is pasted; a bad cell pastes nothing', async () => {
  const { page } = tools;
  await page.click(await cell(page, 3, 'rx'));
  await keys('Shift+ArrowDown', 'Shift+ArrowRight');
  const copied = await page.evaluate(() => {
    const data = new DataTransfer();
    document
      .querySelector('[role=grid]')!
      .dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
    return data.getData('text/plain');
  });
  expect(copied).toBe('145.6125\t-0.6\r\n145.7375\t-0.6');
  await page.click(await cell(page, 3, 'rx'));
  await paste('145.700\t-\r\n145.7.7\t-');
  await sees(page, 'footer', /Nothing was pasted: one cell is not understood\. Slot 4:/);
  expect((await inSlot(3))!.rx).toBe(145_612_500);
  await paste('145.700\t-\r\n145.725\t=');
  await kept(page);
  await until('the pasted rows', async () => (await inSlot(3))!.rx === 145_700_000);
  expect(await inSlot(3)).toMatchObject({ tx: 145_100_000 });
  expect(await inSlot(4)).toMatchObject({ rx: 145_725_000, tx: 145_725_000 });
  await keys('Control+z');
  await until('the paste undone', async () => (await inSlot(4))!.rx === 145_737_500);
});

test('a frequency in the empty row makes a channel in the next free slot', async () => {
  const { page } = tools;
  await page.click(await cell(page, 11, 'rx'));
  await page.keyboard.type('433.4');
  await keys('Enter');
  await kept(page);
  expect(await inSlot(11)).toMatchObject({ rx: 433_400_000, tx: 433_400_000 });
  await page.click(await cell(page, 18, 'name'));
  await page.keyboard.type('First a name');
  await keys('Enter');
  await sees(page, '#cell-message', 'Type the receive frequency');
  await keys('Escape', 'Control+z');
  await until('the channel undone', async () => (await inSlot(11)) === undefined);
});

test('slots are typed, swapped, moved with Alt and the arrows, sorted and closed up', async () => {
  const { page } = tools;
  const names = async () => (await channels()).map((channel) => channel.name);
  const before = await names();
  await type(page, 2, 'slot', '99');
  await kept(page);
  expect((await inSlot(99))!.name).toBe('Club simplex');
  await type(page, 99, 'slot', '0');
  await kept(page);
  expect((await inSlot(0))!.name).toBe('Club simplex');
  expect((await inSlot(99))!.name).toBe('Calling 2 m');
  await page.click(await cell(page, 3, 'rx'));
  await keys('Alt+ArrowDown');
  await kept(page);
  expect((await inSlot(4))!.name).toBe('Ullsmere Hill');
  await press(page, 'Arrange');
  await (await page.waitForSelector(
    '::-p-aria([name="Close the gaps between slots"][role="menuitem"])',
  ))!.click();
  await kept(page);
  expect((await channels()).map((channel) => channel.slot)).toEqual(
    Array.from({ length: 20 }, (_, slot) => slot),
  );
  await press(page, 'Arrange');
  await (await page.waitForSelector('::-p-aria([name="Receive"][role="menuitem"])'))!.click();
  await kept(page);
  const sorted = (await channels()).map((channel) => channel.rx);
  expect(sorted).toEqual([...sorted].sort((a, b) => a - b));
  for (let undo = 0; undo < 5; undo++) await world.api(`/api/plans/${PLAN}/undo`, 'POST');
  expect(await names()).toEqual(before);
});

test('everything is found by name: a channel, a command, a theme', async () => {
  const { page } = tools;
  await keys('Control+k');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('quill');
  await until('one channel', async () => (await page.$$('[cmdk-item]')).length === 1);
  await keys('Enter');
  await until('the channel to be chosen', async () =>
    (await textOf(page, `#${await active()}`)).includes('Quill Weather'),
  );
  expect(await page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('grid');
  await keys('Control+k');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('dark theme');
  await until('the theme', async () =>
    (await textOf(page, '[cmdk-item][aria-selected=true]')).includes('Dark theme'),
  );
  await keys('Enter');
  expect(await page.$eval('html', (html) => html.dataset.theme)).toBe('dark');
  await page.reload();
  expect(await page.$eval('html', (html) => html.dataset.theme)).toBe('dark');
  await page.deleteCookie({ name: 'veridon-theme' });
});

test('? shows the shortcuts; / finds in the plan; Esc gives the whole plan back', async () => {
  const { page } = tools;
  await keys('ArrowRight', '?');
  await sees(page, '[role=dialog]', 'Make listen only');
  await keys('Escape');
  await until('the list to close', async () => (await page.$('[role=dialog]')) === null);
  await page.focus('[role=grid]');
  await keys('/');
  await page.keyboard.type('weather');
  await sees(page, '[role=toolbar]', '6 of 20');
  await page.focus('[role=grid]');
  await keys('Escape');
  await until('all rows', async () => (await page.$('[role=grid][aria-rowcount="22"]')) !== null);
});

test('the band strip chooses: a tick by a click, a range by dragging, the next one by an arrow key', async () => {
  const { page } = tools;
  const strip = (await page.$('[role=listbox][aria-label^="70 cm"]'))!;
  const box = (await strip.boundingBox())!;
  await strip.focus();
  await keys('ArrowRight');
  await until('the lowest of 70 cm', async () =>
    (await textOf(page, `#${await active()}`)).includes('430.8875'),
  );
  await keys('ArrowRight');
  await until('the next one up', async () => (await textOf(page, `#${await active()}`)).includes('433.1625'));
  await page.mouse.move(box.x + 2, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 2, box.y + 30, { steps: 4 });
  await page.mouse.up();
  await sees(page, 'footer', '4 chosen');
  await page.keyboard.press('+');
  await sees(page, '[aria-label="Bands of this plan"]', 'whole band');
  await keys('0');
  await until(
    'the whole band',
    async () => !(await textOf(page, '[aria-label="Bands of this plan"]')).includes('whole band'),
  );
  const tick = (await (await page.$(
    '[role=listbox][aria-label^="Licence-free"] [role=option] i',
  ))!.boundingBox())!;
  await page.mouse.click(tick.x + 1, tick.y + 3);
  await until('the beach handhelds', async () =>
    (await textOf(page, `#${await active()}`)).includes('446.00625'),
  );
});

test('what was done stands in the history, newest first, undone steps too', async () => {
  const { page } = tools;
  await type(page, 0, 'name', 'Calling here');
  await kept(page);
  await press(page, 'History');
  await sees(
    page,
    '[aria-label="What has been done, newest first"] li:first-child',
    'Rename “Calling 2 m” to “Calling here”',
  );
  await press(page, 'Undo');
  await sees(
    page,
    '[aria-label="What has been done, newest first"] li:first-child',
    'Undone: Rename “Calling 2 m” to “Calling here”',
  );
});

test('guarding strictly makes cautions of the licence stops; the plan’s name is changed where it stands', async () => {
  const { page } = tools;
  const check = () =>
    page.$eval('header button[aria-label^="Check"]', (button) => button.getAttribute('aria-label'));
  expect(await check()).toContain('1 stop,');
  await press(page, 'Q7KWD · grade Full');
  const strict = await page.waitForSelector('input[type=checkbox]');
  await strict!.click();
  await until('two stops', async () => (await check())!.includes('2 stops'));
  await keys('Escape');
  await kept(page);
  await press(page, 'Ketterby weekend');
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type('Ketterby in autumn');
  await keys('Enter');
  await kept(page);
  await page.goto(world.url);
  await sees(page, 'main', 'Ketterby in autumn');
});

test('a name fitted by hand stays, and emptied the fitter finds one again', async () => {
  const { page } = tools;
  await page.click(await cell(page, 5, 'rx'));
  await sees(page, '[aria-label=Display]', 'KTT QY');
  await page.focus('#radio-name');
  await page.keyboard.type('quay 1');
  await keys('Enter');
  await sees(page, '[aria-label=Display]', 'QUAY 1');
  await kept(page);
  await type(page, 5, 'name', 'Ketterby old quay');
  await kept(page);
  const fit = await world.api<{ fit: { channels: { slot: number; name: string }[] } }>(
    `/api/plans/${PLAN}/fit`,
  );
  expect(fit.body.fit.channels.find((channel) => channel.slot === 5)!.name).toBe('QUAY 1');
  await page.click(await cell(page, 5, 'rx'));
  await page.click('#radio-name', { count: 3 });
  await keys('Backspace', 'Enter');
  // Ketterby Old Quay: abbreviated and without vowels it is KTTRBY OLD QY, then the longest word is cut until six are left
  await until(
    'the fitter’s own name',
    async () => !(await textOf(page, '[aria-label=Display]')).includes('QUAY 1'),
  );
  await sees(page, '[aria-label=Display]', 'K O QY');
});

test('a new plan is made for a radio under another of its names; an empty one says what to do', async () => {
  const { page } = tools;
  await page.goto(world.url);
  await press(page, 'New plan');
  await press(page, 'Make the plan');
  await sees(page, 'main [role=alert]', 'Give the plan a name');
  await page.keyboard.press('Tab');
  await page.focus('form input');
  await page.keyboard.type('Beach day');
  await page.select('form select', 'Sandhoven S22');
  await press(page, 'Make the plan');
  await sees(page, 'h1', 'Beach day');
  await sees(page, 'header', 'Larkmoor Tern P2');
  await sees(page, '[role=grid]', 'New channel');
  expect(await page.$eval('[role=grid]', (grid) => grid.getAttribute('aria-rowcount'))).toBe('2');
});

test.each([1024, 1280, 2560])(
  'at %d pixels nothing scrolls sideways and every column is there',
  async (width) => {
    const { page } = tools;
    await page.setViewport({ width, height: 800 });
    await pause(150);
    const { sideways, right, inner } = await page.evaluate(() => ({
      sideways:
        document.documentElement.scrollWidth > window.innerWidth ||
        document.documentElement.scrollHeight > window.innerHeight,
      right: Math.max(
        ...[...document.querySelectorAll('[role=columnheader]')].map(
          (head) => head.getBoundingClientRect().right,
        ),
      ),
      inner: document.querySelector('[role=grid]')!.getBoundingClientRect().right,
    }));
    expect(sideways).toBe(false);
    expect(right).toBeLessThanOrEqual(inner + 1);
  },
);
