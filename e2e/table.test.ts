import {
  cell,
  choose,
  framesDrawn,
  kept,
  press,
  sees,
  textOf,
  type,
  until,
  PLAN,
  onPlanPage,
} from './harness';
import { atTable } from './at-table';

/** The channel table, worked as a spreadsheet: by keyboard, mouse and clipboard. */

const at = onPlanPage();
const { channels, inSlot, active, keys } = at;
const table = atTable(at);
const paste = (text: string) => table.paste(at.page(), { 'text/plain': text });

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
  expect(await at.page().evaluate(() => document.activeElement?.getAttribute('role'))).not.toBe('grid');
});

test('typing replaces, F2 keeps the text, Enter goes down, Esc throws away', async () => {
  const page = at.page();
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
  const page = at.page();
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
  const page = at.page();
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

test('a block is copied for a spreadsheet, and one from a spreadsheet is pasted; an odd cell stays with its reason', async () => {
  const page = at.page();
  await page.click(await cell(page, 3, 'rx'));
  await keys('Shift+ArrowDown', 'Shift+ArrowRight');
  expect((await table.copy(page))['text/plain']).toBe('145.6125\t-0.6\r\n145.7375\t-0.6');
  await page.click(await cell(page, 3, 'rx'));
  await paste('145.700\t-\r\n145.7.7\t-');
  await sees(page, 'footer', /One cell is not understood and marked; the rest is in/);
  await kept(page);
  await until('the understood row', async () => (await inSlot(3))!.rx === 145_700_000);
  expect((await inSlot(4))!.rx).toBe(145_737_500);
  expect(await page.$eval(await cell(page, 4, 'rx'), (element) => element.textContent)).toContain('145.7.7');
  await paste('145.700\t-\r\n145.725\t=');
  await kept(page);
  await until('the pasted rows', async () => (await inSlot(3))!.rx === 145_700_000);
  expect(await inSlot(3)).toMatchObject({ tx: 145_100_000 });
  expect(await inSlot(4)).toMatchObject({ rx: 145_725_000, tx: 145_725_000 });
  await keys('Control+z');
  await until('the paste undone', async () => (await inSlot(4))!.rx === 145_737_500);
});

test('a frequency in the empty row makes a channel in the next free slot', async () => {
  const page = at.page();
  await page.click(await cell(page, 11, 'rx'));
  await page.keyboard.type('433.4');
  await keys('Enter');
  await kept(page);
  expect(await inSlot(11)).toMatchObject({ rx: 433_400_000, tx: 433_400_000 });
  await page.click(await cell(page, 18, 'name'));
  await page.keyboard.type('First a name');
  await keys('Enter');
  // Without a receive frequency it waits in the row; emptied, nothing of it is left.
  await sees(page, await cell(page, 18, 'name'), 'First a name');
  await page.click(await cell(page, 18, 'name'));
  await keys('F2', 'Control+a', 'Backspace', 'Enter');
  await sees(page, await cell(page, 18, 'name'), 'New channel');
  await keys('Control+z');
  await until('the channel undone', async () => (await inSlot(11)) === undefined);
});

/** The name of the button that carries an arrangement out; it counts the channels. */
const moveButton = () =>
  until('something to move', async () =>
    at
      .page()
      .$eval('form[aria-label="Arrange slots"] [type=submit]', (button) =>
        (button as HTMLButtonElement).disabled ? '' : button.textContent,
      )
      .catch(() => ''),
  );

test('slots are typed, swapped, moved with Alt and the arrows, sorted and closed up', async () => {
  const page = at.page();
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
  await choose(page, 'Arrange', 'Close the gaps');
  await sees(page, '[aria-label="Preview of the slots"]', /^002Brannoch Headwas 003/);
  await press(page, await moveButton());
  await kept(page);
  expect((await channels()).map((channel) => channel.slot)).toEqual(
    Array.from({ length: 20 }, (_, slot) => slot),
  );
  await keys('Control+k');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('sort by receive');
  await keys('Enter');
  await press(page, await moveButton());
  await kept(page);
  const sorted = (await channels()).map((channel) => channel.rx);
  expect(sorted).toEqual([...sorted].sort((a, b) => a - b));
  for (let step = 0; step < 5; step++) await at.undo();
  expect(await names()).toEqual(before);
});

test('a name fitted by hand stays, and emptied the fitter finds one again', async () => {
  const page = at.page();
  await page.click(await cell(page, 5, 'rx'));
  await sees(page, '[aria-label=Display]', 'KTT QY');
  await page.focus('#radio-name');
  await page.keyboard.type('quay 1');
  await keys('Enter');
  await sees(page, '[aria-label=Display]', 'QUAY 1');
  await kept(page);
  await type(page, 5, 'name', 'Ketterby old quay');
  await kept(page);
  const fit = await at
    .world()
    .api<{ fit: { channels: { slot: number; name: string }[] } }>(`/api/plans/${PLAN}/fit`);
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

test('chosen channels are moved to a slot and numbered in steps, each seen beforehand', async () => {
  const page = at.page();
  const names = async () => Object.fromEntries((await channels()).map((one) => [one.slot, one.name]));
  const before = await names();
  await page.click(await cell(page, 20, 'rx'));
  await keys('Shift+ArrowDown', 'm');
  await page.waitForSelector('#arrange-slot');
  await page.keyboard.type('3');
  // two come to 3 and 4; those in 3 to 10 go down by two until the gaps at 11 and after 17 are used up
  await sees(page, '[aria-label="Preview of the slots"]', '003Harbour watchwas 020');
  await sees(page, '[aria-label="Preview of the slots"]', '005Ullsmere Hill pushedwas 003');
  expect(await names()).toEqual(before);
  await keys('Enter');
  await kept(page);
  expect(await names()).toMatchObject({
    2: before[2],
    3: 'Harbour watch',
    4: 'Ferry working',
    5: 'Ullsmere Hill',
    12: 'Norrast Relay',
    13: 'Isle Weather North',
    18: 'Hestin Weather',
    24: before[24],
  });
  expect(await page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('grid');
  await keys('Control+z');
  await until('the move undone', async () => (await inSlot(20))?.name === 'Harbour watch');
  await kept(page);

  await page.click(await cell(page, 12, 'rx'));
  await keys(...Array<string>(5).fill('Shift+ArrowDown'));
  await press(page, 'Arrange');
  await choose(page, 'Arrange', 'Number the 6 chosen anew');
  const fill = async (field: string, text: string) => {
    await page.click(field, { count: 3 });
    await page.keyboard.type(text);
  };
  await fill('#arrange-slot', '140');
  await fill('#arrange-step', '2');
  // 140, 142 … 150: the radio ends at 149
  await sees(page, '[aria-label="Preview of the slots"]', 'offHestin Weatherleft over');
  await fill('#arrange-slot', '100');
  await sees(page, '[aria-label="Preview of the slots"]', '110Hestin Weatherwas 017');
  await keys('Enter');
  await kept(page);
  expect(
    Object.keys(await names())
      .map(Number)
      .filter((slot) => slot >= 100),
  ).toEqual([100, 102, 104, 106, 108, 110]);
  await keys('Control+z');
  await until('the numbers undone', async () => (await inSlot(12))?.name === 'Isle Weather North');
});

test('chosen rows are carried by their slot with the mouse, and by Alt and the arrows; the slots in use stay', async () => {
  const page = at.page();
  const order = async () => (await channels()).map(({ name }) => name);
  const before = await order();
  const slots = (await channels()).map(({ slot }) => slot);
  // Ullsmere Hill and Brannoch Head, the fourth and fifth, go before the second
  await page.click(await cell(page, 3, 'slot'));
  await keys('Shift+ArrowDown');
  const from = (await (await page.$(await cell(page, 3, 'slot')))!.boundingBox())!;
  const to = (await (await page.$(await cell(page, 1, 'slot')))!.boundingBox())!;
  await page.mouse.move(from.x + 10, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 10, to.y + 20, { steps: 3 });
  await page.mouse.move(to.x + 10, to.y + 4, { steps: 3 });
  await sees(page, '[role=grid]', '2 channels here');
  expect(await order()).toEqual(before);
  await page.mouse.up();
  await kept(page);
  const [calling, second, third, ullsmere, brannoch, ...rest] = before;
  expect(await order()).toEqual([calling, ullsmere, brannoch, second, third, ...rest]);
  expect((await channels()).map(({ slot }) => slot)).toEqual(slots);
  await sees(page, 'footer', '2 chosen');
  await keys('Alt+ArrowDown');
  await kept(page);
  expect(await order()).toEqual([calling, second, ullsmere, brannoch, third, ...rest]);
  await keys('Control+z', 'Control+z');
  await until('both undone', async () => (await order()).join() === before.join());
});

test('a long table that is scrolled shows each channel in its row, and reads in order when it has come to rest', async () => {
  const page = at.page();
  const api = at.world().api;
  const { plan } = (
    await api<{ plan: { id: string } }>('/api/plans', 'POST', { name: 'Long', modelId: 'tern-p2', owner: {} })
  ).body;
  const of = (n: number) => ({
    id: `ch_long${String(n).padStart(4, '0')}`,
    name: `Row ${n}`,
    fitted: {},
    rx: 145_000_000 + n * 12_500,
    tx: n % 3 === 0 ? null : 145_000_000 + n * 12_500,
    txFixed: false,
    access: { kind: 'analogue', send: null, expect: null },
    mode: 'FM',
    power: 4000,
    scan: true,
    alwaysOn: false,
    note: '',
    source: null,
  });
  const edit = {
    name: 'place',
    channels: Array.from({ length: 140 }, (_, n) => of(n)),
    placement: 'next-free',
    at: 0,
    range: { first: 0, count: 150 },
  };
  expect((await api(`/api/plans/${plan.id}/edits`, 'POST', { base: 1, edit })).status).toBe(200);
  await page.goto(`${at.world().url}/plans/${plan.id}`);
  await until('the focus', async () => (await active()) === 'cell-0-name');
  /** The rows as they stand in the document: by number, with what their cells say; those that can be seen must all be there. */
  const rows = () =>
    page.$eval('[role=grid]', (grid) => {
      const drawn = [...grid.querySelectorAll('[role=rowgroup] > [role=row]')].map((row) => ({
        row: Number(row.getAttribute('aria-rowindex')) - 2,
        said: [...row.querySelectorAll('[data-column=slot], [data-column=name], [data-column=tx]')].map(
          (one) => one.textContent!.replace(/R(OW|W) \d.*$/, ''),
        ),
        top: row.getBoundingClientRect().top - grid.getBoundingClientRect().top + grid.scrollTop,
      }));
      return { drawn, scrollTop: grid.scrollTop, height: grid.clientHeight };
    });
  const check = async () => {
    const { drawn, scrollTop, height } = await rows();
    for (const { row, said, top } of drawn.filter(({ row: n }) => n < 140)) {
      expect(said.map((text) => text.trim())).toEqual([
        String(row).padStart(3, '0'),
        `Row ${row}`,
        row % 3 === 0 ? 'listen only' : 'same',
      ]);
      expect(top).toBe(30 + row * 29);
    }
    const numbers = drawn.map(({ row }) => row).sort((a, b) => a - b);
    expect(numbers[0]! * 29).toBeLessThanOrEqual(scrollTop);
    expect((numbers.at(-1)! + 2) * 29).toBeGreaterThanOrEqual(Math.min(scrollTop + height, 141 * 29));
    return drawn.map(({ row }) => row);
  };
  for (const top of [300, 900, 2600, 5000, 1234, 40, 777]) {
    await page.$eval('[role=grid]', (grid, y) => void (grid.scrollTop = y), top);
    await framesDrawn(page);
    await check();
  }
  await until('rest', async () => {
    const order = await check();
    return order.every((row, n) => n === 0 || row === order[n - 1]! + 1);
  });
  // whoever jumps by the keyboard sees the rows in the first frame, and can scroll on from there
  for (const key of ['Control+End', 'PageUp', 'Control+Home', 'PageDown', 'Control+End'] as const) {
    await keys(key);
    await check();
    const cell = await active();
    const drawn = await page.$eval(`[id="${cell}"]`, (one) => {
      const pane = one.closest('[role=grid]')!.getBoundingClientRect();
      const { top, bottom } = one.getBoundingClientRect();
      return top >= pane.top + 29 && bottom <= pane.bottom + 1;
    });
    expect({ key, drawn }).toEqual({ key, drawn: true });
    await page.$eval('[role=grid]', (grid) => grid.scrollBy(0, -400));
    await framesDrawn(page);
    await check();
  }
  // and the keyboard finds its cell wherever the pane was scrolled to
  await keys('Control+End', 'Home', 'ArrowRight', 'ArrowUp');
  await page.keyboard.type('Last');
  await keys('Enter');
  await kept(page);
  const { body } = await api<{ plan: { channels: { name: string }[] } }>(`/api/plans/${plan.id}`);
  expect(body.plan.channels.at(-1)!.name).toBe('Last');
  await page.goto(`${at.world().url}/plans/${PLAN}`);
});
