import {
  PLAN,
  cell,
  choose,
  chosenIn,
  findingsCome,
  findingsCounted,
  kept,
  atRest,
  press,
  sees,
  textOf,
  type,
  until,
  onPlanPage,
} from './harness';

/** What stands around the table: everything by name, shortcuts, the band strip as a control, history, owner, widths. */

const at = onPlanPage();
const { active, keys } = at;

test('everything is found by name: a channel, a command, a theme', async () => {
  const page = at.page();
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
  const page = at.page();
  await keys('ArrowRight', '?');
  await sees(page, '[role=dialog]', 'Make listen only');
  await keys('Escape');
  await until('the list to close', async () => (await page.$('[role=dialog]')) === null);
  await page.focus('[role=grid]');
  await keys('/');
  await page.keyboard.type('weather');
  await sees(page, '[aria-label="What is shown"]', '6 of 20');
  await page.focus('[role=grid]');
  await keys('Escape');
  await until('all rows', async () => (await page.$('[role=grid][aria-rowcount="22"]')) !== null);
});

test('the band strip chooses: a tick by a click, a range by dragging, the next one by an arrow key', async () => {
  const page = at.page();
  const strip = (await page.waitForSelector('[role=listbox][aria-label^="70 cm"]'))!;
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
  // the ticks of what is received are the second of three lines
  const tick = (await (await page.$(
    '[role=listbox][aria-label^="Licence-free"] svg path:nth-of-type(2)',
  ))!.boundingBox())!;
  await page.mouse.click(tick.x + 1, tick.y + 3);
  await until('the beach handhelds', async () =>
    (await textOf(page, `#${await active()}`)).includes('446.00625'),
  );
});

test('what was done stands in the history, newest first, undone steps too', async () => {
  const page = at.page();
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

test('the plan goes back to an earlier revision, and what another page did is seen on coming back', async () => {
  const page = at.page();
  const { revision } = await at.read();
  const before = (await at.inSlot(2))!.name;
  await type(page, 2, 'name', 'First try');
  await type(page, 2, 'name', 'Second try');
  await kept(page);
  await press(page, 'History');
  await press(page, `Go back to revision ${revision}`);
  await kept(page);
  expect((await at.inSlot(2))!.name).toBe(before);
  await sees(
    page,
    '[aria-label="What has been done, newest first"] li:first-child',
    `Go back to revision ${revision}`,
  );
  await press(page, 'Undo');
  await until('the second try', async () => (await at.inSlot(2))!.name === 'Second try');
  await kept(page);
  // somebody undoes on another page; this one is looked at again
  await at.undo();
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await sees(page, await cell(page, 2, 'name'), 'First try');
  await at.undo();
});

test('what is being typed belongs to its channel, wherever its row goes; where the channel goes, it goes nowhere', async () => {
  const page = at.page();
  const [first, , third, fourth] = await at.channels();
  await page.click(await cell(page, third!.slot, 'name'));
  await page.keyboard.type('Held fast');
  // somebody removes the row above on another page, and this one hears of it while the cell is open
  const { revision } = await at.read();
  await at.world().api(`/api/plans/${PLAN}/edits`, 'POST', {
    base: revision,
    edit: { name: 'remove', ids: [first!.id] },
  });
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await until('one row fewer', async () => (await page.$('[role=grid][aria-rowcount="21"]')) !== null);
  expect(await page.$eval('[role=grid] input', (field) => field.value)).toBe('Held fast');
  await keys('Enter');
  await kept(page);
  const names = async () => new Map((await at.channels()).map(({ id, name }) => [id, name]));
  expect((await names()).get(third!.id)).toBe('Held fast');
  expect((await names()).get(fourth!.id)).toBe(fourth!.name);

  await page.click(await cell(page, fourth!.slot, 'name'));
  await page.keyboard.type('Lost');
  await at.world().api(`/api/plans/${PLAN}/edits`, 'POST', {
    base: (await at.read()).revision,
    edit: { name: 'remove', ids: [fourth!.id] },
  });
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await sees(page, 'footer', 'Not taken: “Lost”. Its channel is not in the plan any more.');
  expect(await page.$('[role=grid] input')).toBeNull();
  expect([...(await names()).values()]).not.toContain('Lost');
  for (let n = 0; n < 3; n++) await at.undo();
});

test('a note is kept with its channel and found by; a station that never falls silent is a hint in the scan', async () => {
  const page = at.page();
  await page.waitForSelector('#channel-note');
  await page.click(await cell(page, 7, 'rx'));
  await page.click('#channel-note');
  await page.keyboard.type('key at the harbour office');
  await keys('Enter');
  await kept(page);
  await page.click(await cell(page, 6, 'rx'));
  expect(await page.$eval('#channel-note', (field) => (field as HTMLInputElement).value)).toBe('');
  // the fields are those of the chosen channel, and stand there once
  expect(await page.$$('#channel-note, #radio-name')).toHaveLength(2);
  await page.type('#find-in-plan', 'harbour off');
  await sees(page, '[aria-label="What is shown"]', '1 of 20');
  await page.focus('[role=grid]');
  await keys('Escape');
  await page.click(await cell(page, 7, 'rx'));
  expect(await page.$eval('#channel-note', (field) => (field as HTMLInputElement).value)).toBe(
    'key at the harbour office',
  );
  await page.click('aside [role=checkbox]');
  await kept(page);
  await findingsCome(page, /2 hints/);
  await keys('Control+z', 'Control+z');
  await until('both undone', async () => !(await findingsCounted(page)).includes('2 hints'));
});

test('findings that are mended alike are mended in one stroke, and undone in one', async () => {
  const page = at.page();
  await sees(page, '[aria-label=Findings]', 'Make it listen only, all 6');
  await press(page, 'Make it listen only: all 6');
  await kept(page);
  const weather = async () =>
    (await at.channels()).filter(({ rx }) => rx > 162_000_000 && rx < 163_000_000).map(({ tx }) => tx);
  expect(await weather()).toEqual([null, null, null, null, null, null]);
  await press(page, 'Undo');
  await until('six that send', async () => (await weather()).every((tx) => tx !== null));
});

test('an abbreviation of this plan’s own changes what the radio will show, and can be taken back', async () => {
  const page = at.page();
  await press(page, 'Fit 28');
  await press(page, 'Change the abbreviations');
  await page.waitForSelector('form[aria-label=Abbreviations]');
  await press(page, 'Add');
  await until('the new row', async () =>
    page.evaluate(() => document.activeElement?.getAttribute('aria-label')?.startsWith('Word')),
  );
  await page.keyboard.type('Ullsmere');
  // not complete yet: it says so, and cannot be used
  await sees(page, 'form[aria-label=Abbreviations]', 'The short form of “Ullsmere” is empty.');
  await keys('Tab');
  await page.keyboard.type('UM');
  await sees(
    page,
    'form[aria-label=Abbreviations]',
    '1 name on the Tern P2 will read otherwise: ULL HL → UM HL.',
  );
  await press(page, 'Use these');
  await kept(page);
  await sees(page, await cell(page, 3, 'name'), 'UM HL');
  await press(page, 'Undo');
  await until('the usual one', async () =>
    (await textOf(page, await cell(page, 3, 'name'))).includes('ULL HL'),
  );
});

test('guarding strictly makes cautions of the licence stops; the plan’s name is changed where it stands', async () => {
  const page = at.page();
  const check = () => findingsCounted(page);
  await findingsCome(page, /1 stop,/);
  await press(page, 'Q7KWD · grade Full');
  const strict = await page.waitForSelector('[role=dialog] label ::-p-text(Guard strictly)');
  await strict!.click();
  await until('two stops', async () => (await check()).includes('2 stops'));
  await keys('Escape');
  await kept(page);
  await press(page, 'Ketterby weekend');
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await page.keyboard.type('Ketterby in autumn');
  await keys('Enter');
  await kept(page);
  await page.goto(at.world().url);
  await sees(page, 'main', 'Ketterby in autumn');
});

test('a plan is duplicated, removed and brought back', async () => {
  const page = at.page();
  await page.goto(at.world().url);
  const first = await textOf(page, '[aria-label=Plans] b');
  await press(page, `Duplicate ${first}`);
  await sees(page, '[aria-label=Plans]', `${first}, copy`);
  await press(page, `Remove ${first}, copy`);
  await sees(page, '[aria-label="Removed plans"]', `${first}, copy`);
  expect(await textOf(page, '[aria-label=Plans]')).not.toContain(', copy');
  await press(page, `Bring back ${first}, copy`);
  await sees(page, '[aria-label=Plans]', `${first}, copy`);
  await until(
    'the list of removed ones to go',
    async () => (await page.$('[aria-label="Removed plans"]')) === null,
  );
});

test('distances are in miles where somebody wants them so, and stay so; a locator is a place', async () => {
  const page = at.page();
  await page.goto(`${at.world().url}/find?plan=${PLAN}`);
  await page.waitForSelector('datalist option');
  await choose(page, 'Unit', 'miles');
  // 40 km are 24.85 miles
  expect(await page.$eval('input[inputmode=decimal]', (field) => field.value)).toBe('25');
  await page.click('input[list=places]', { count: 3 });
  await page.keyboard.type('HO52bb');
  await keys('Enter');
  await page.waitForSelector('tbody tr');
  const distances = () =>
    page.$$eval('tbody td:nth-child(2)', (all) => all.map((td) => td.textContent ?? ''));
  expect((await distances()).every((text) => / mi$/.test(text))).toBe(true);
  // only what can be seen is drawn: the farthest are at the foot of the list
  const rows = Number(await page.$eval('table', (table) => table.getAttribute('aria-rowcount')));
  expect(await page.$$eval('tbody [role=checkbox]', (all) => all.length)).toBeLessThan(rows - 1);
  await page.$eval('table', (table) => table.parentElement!.scrollTo(0, 1e6));
  await page.waitForSelector(`tbody tr[aria-rowindex="${rows}"]`);
  const farthest = Number.parseFloat((await distances()).at(-1)!);
  expect(farthest).toBeLessThanOrEqual(25);
  expect(farthest).toBeGreaterThan(20);
  // the focus goes with the arrow keys, and stays when its row is scrolled away
  await page.focus(`tr[aria-rowindex="${rows}"] [role=checkbox]`);
  // however fast they come: both before the next frame
  await page.evaluate(() => {
    for (let n = 0; n < 2; n++)
      document.activeElement!.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true, cancelable: true }),
      );
  });
  const focused = () =>
    page.evaluate(() => document.activeElement?.closest('tr')?.getAttribute('aria-rowindex'));
  await until('the focus two rows up', async () => (await focused()) === String(rows - 2));
  await page.$eval('table', (table) => table.parentElement!.scrollTo(0, 0));
  await page.waitForSelector('tbody tr[aria-rowindex="2"]');
  expect(await focused()).toBe(String(rows - 2));
  await page.reload();
  expect(await chosenIn(page, 'Unit')).toBe('miles');
  await page.deleteCookie({ name: 'veridon-distance' });
});

test('a town that is written otherwise is found all the same; of several that may be meant one is chosen', async () => {
  const page = at.page();
  await page.goto(`${at.world().url}/find?plan=${PLAN}`);
  await page.waitForSelector('datalist option');
  const search = async (town: string) => {
    await page.click('input[list=places]', { count: 3 });
    await page.keyboard.type(town);
    await keys('Enter');
  };
  await search('Keterby');
  await page.waitForSelector('tbody tr');
  expect(await page.$eval('input[list=places]', (field) => field.value)).toBe('Ketterby');
  // two towns hold this: neither is taken for meant
  await search('Ketter');
  await sees(page, 'main [role=alert]', 'The gazetteer has no “Ketter”. Did you mean:');
  await press(page, 'Little Ketter');
  await until(
    'the other town',
    async () => (await page.$eval('input[list=places]', (field) => field.value)) === 'Little Ketter',
  );
  expect(await page.$('main [role=alert]')).toBeNull();
  await search('Qzxqzx');
  await sees(page, 'main [role=alert]', 'nor anything like it');
});

test.each([1024, 1280, 2560])(
  'at %d pixels nothing scrolls sideways and every column is there',
  async (width) => {
    const page = at.page();
    await page.setViewport({ width, height: 800 });
    await atRest(page);
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

test.each(['plans/' + PLAN, 'find?plan=' + PLAN, 'bench?plan=' + PLAN, ''])(
  'at 480 pixels /%s is not broken: nothing lies beside the page, and its name is there to read',
  async (path) => {
    const page = at.page();
    await page.setViewport({ width: 480, height: 800 });
    await page.goto(`${at.world().url}/${path}`);
    await page.waitForSelector('h1');
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(480);
    const name = await page.$eval('h1', (head) => head.getBoundingClientRect().toJSON() as DOMRect);
    expect(name.width).toBeGreaterThan(40);
    expect(name.right).toBeLessThanOrEqual(480);
    await page.setViewport({ width: 1280, height: 800 });
  },
);
