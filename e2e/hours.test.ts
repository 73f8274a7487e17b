import { atTable } from './at-table';
import {
  atRest,
  cell,
  choose,
  kept,
  onPlanPage,
  press,
  sees,
  strike,
  textOf,
  until,
  PLAN,
  type Channel,
} from './harness';

/** Hours spent at the table: lists typed and pasted, many changed at once, slots put in order, and what was done found again. */

const at = onPlanPage();
const { channels, inSlot, keys, read } = at;
const { newPlan, open, channelsOf, paste, copy, show } = atTable(at);
const said = 'footer [role=status]';

test('thirty channels from a written list, by keyboard alone', async () => {
  const page = at.page();
  const id = await newPlan('Written list');
  // The first, as the list has it: a frequency on the empty row, then along the row.
  for (let n = 1; n <= 30; n++) {
    await keys('Control+End');
    await keys('Home', 'ArrowRight', 'ArrowRight');
    await page.keyboard.type(`145,${600 + n * 2}`.slice(0, 7));
    await keys('Enter');
    await keys('ArrowUp', 'Home', 'ArrowRight');
    await page.keyboard.type(`List ${n}`);
    await keys('Tab', 'Tab');
    if (n % 3 === 0) {
      await page.keyboard.type('-');
      await keys('Tab');
      await page.keyboard.type('88,5');
      await keys('Enter');
    }
  }
  await kept(page);
  const { channels: own } = await channelsOf(id);
  expect(own.map(({ name }) => name)).toEqual(Array.from({ length: 30 }, (_, i) => `List ${i + 1}`));
  // 145.602 up by 2 kHz; each third 0.6 down with 88.5 Hz
  expect(own.map(({ rx }) => rx)).toEqual(Array.from({ length: 30 }, (_, i) => 145_602_000 + i * 2_000));
  expect(own.filter(({ tx, rx, access }) => rx - tx! === 600_000 && access.send?.tone === 885)).toHaveLength(
    10,
  );
});

test('two hundred rows from a spreadsheet, ten cells of which nobody understands', async () => {
  const page = at.page();
  const id = await newPlan('Pasted');
  const rows = Array.from({ length: 200 }, (_, i) => {
    const bad = i % 20 === 7;
    return [
      `R${i}`,
      `14${5 + (i % 2)},${String(600 + (i % 100)).padStart(3, '0')}`,
      bad ? 'loud' : '88,5',
      '-0,6',
    ].join('\t');
  });
  await paste(page, { 'text/plain': ['Station\tFreq (MHz)\tCTCSS\tOffset', ...rows].join('\r\n') });
  // A Tern has 150 slots.
  await sees(
    page,
    said,
    '150 channels are new. 50 found no slot and wait in left over. 10 cells are not understood',
  );
  await kept(page);
  const plan = await channelsOf(id);
  expect(plan.channels).toHaveLength(150);
  expect(plan.leftOver).toHaveLength(50);
  expect(plan.channels[3]).toMatchObject({
    name: 'R3',
    rx: 146_603_000,
    tx: 146_003_000,
    access: { send: { tone: 885 } },
  });
  // marked in its cell with the reason
  await keys('Control+Home');
  await sees(page, await cell(page, 7, 'access'), 'loud');
  await page.click(await cell(page, 7, 'access'));
  await keys('F2');
  await sees(page, '#cell-message', 'not a tone');
  await keys('Escape');
  // All of it gone at once; what is pasted at once after that goes to the slots that it leaves.
  await keys('Control+z');
  // rows of which no channel comes are named, with the line; the rest is in
  await paste(page, { 'text/plain': 'Hill 145.6125 -0.6 88.5\nsee you there\nTop 145.7' });
  await sees(page, '[aria-label="Not taken"]', /One row not taken.*Line 2 see you there/s);
  await press(page, 'Close');
  await until('the others', async () => (await channelsOf(id)).channels.length === 2);
  expect((await channelsOf(id)).channels.map(({ name, rx }) => [name, rx])).toEqual([
    ['Hill', 145_612_500],
    ['Top', 145_700_000],
  ]);
  expect((await channelsOf(id)).leftOver).toEqual([]);
});

test('whole channels go from plan to plan with all that they have', async () => {
  const page = at.page();
  await page.click(await cell(page, 3, 'slot'));
  await keys('Shift+ArrowDown');
  const data = await copy(page);
  expect(data['text/plain']!.split('\r\n')).toHaveLength(2);
  const id = await newPlan('Receives');
  await paste(page, data);
  await kept(page);
  const strip = ({ id: _, slot: _slot, ...rest }: Channel) => rest;
  const from = (await channels()).filter(({ slot }) => slot === 3 || slot === 4);
  await until('both there', async () => (await channelsOf(id)).channels.length === 2);
  const { channels: own } = await channelsOf(id);
  expect(own.map(strip)).toEqual(from.map(strip));
});

test('transmitting is forbidden on sixty channels in one stroke, undone, done again', async () => {
  const page = at.page();
  const id = await newPlan('Sixty');
  await paste(page, {
    'text/plain': ['Name\tReceive', ...Array.from({ length: 60 }, (_, i) => `S${i}\t145.${200 + i}`)].join(
      '\n',
    ),
  });
  await kept(page);
  await until('sixty', async () => (await channelsOf(id)).channels.length === 60);
  await page.focus('[role=grid]');
  await keys('Control+Home', 'Control+a');
  await sees(page, 'footer', '60 chosen');
  await press(page, 'Listen only');
  const silent = async () => (await channelsOf(id)).channels.filter(({ tx }) => tx === null).length;
  await until('all silent', async () => (await silent()) === 60);
  await keys('Control+z');
  await until('undone', async () => (await silent()) === 0);
  await keys('Control+y');
  await until('done again', async () => (await silent()) === 60);
});

test('what is chosen is changed as a whole: mixed is said, a template names all, tags find them again', async () => {
  const page = at.page();
  await show(page, 'Chosen');
  await page.click(await cell(page, 3, 'name'));
  await keys('Shift+ArrowDown', 'Shift+ArrowDown');
  await sees(page, '[role=tabpanel][data-state=active]', /3 channels.*They transmit in different ways/s);
  expect(await page.$eval('#chosen-Access', (field) => (field as HTMLInputElement).placeholder)).toBe(
    'mixed',
  );
  await page.type('[aria-label="Add a tag"]', 'regatta');
  await keys('Enter');
  await sees(page, '[role=tabpanel][data-state=active]', '#regatta');
  await page.type('#name-template', '{{place} {{n}'.replaceAll('{{', '{'));
  await sees(page, '[aria-label="Names"]', /1, .*2, .*3/);
  await page.$eval('#name-template', (field) => (field as HTMLInputElement).blur());
  await press(page, 'Name 3');
  await kept(page);
  expect((await inSlot(5))!.name).toMatch(/3$/);
  await page.focus('#find-in-plan');
  await page.type('#find-in-plan', '#regatta -split');
  await sees(page, '[aria-label="What is shown"]', /#regatta.*not.*split.*3 of 20/s);
  await press(page, 'Keep this filter');
  await page.keyboard.type('Boats');
  await keys('Enter');
  await sees(page, '[aria-label="What is shown"]', 'Forget this filter');
  await page.focus('#find-in-plan');
  await keys('Escape');
  await page.$eval('#find-in-plan', (field) => (field as HTMLInputElement).select());
  await keys('Backspace');
  await press(page, 'Show by facts');
  await sees(page, '[role=dialog][aria-label="Facts"]', /2 m.*Kept.*Boats/s);
  await press(page, 'Boats');
  await sees(page, '[aria-label="What is shown"]', '3 of 20');
  for (let n = 0; n < 2; n++) await at.undo();
});

test('the table is shown sorted without moving anything, then moved into that order', async () => {
  const page = at.page();
  const before = (await channels()).map(({ name }) => name);
  await page.hover('[role=columnheader][aria-colindex="3"]');
  await page.click('[aria-label="Show by name"]');
  await sees(page, '[role=rowgroup] [role=row]', 'Ashgill Moor');
  expect((await channels()).map(({ name }) => name)).toEqual(before);
  await press(page, 'Move into this order');
  await kept(page);
  await until('moved', async () => (await inSlot(0))?.name === 'Ashgill Moor');
  const slots = (await channels()).map(({ slot }) => slot);
  expect(slots.slice(0, 3)).toEqual([0, 1, 2]);
  await at.undo();
});

test('what was heard is marked from the table and the face, found by it, and forgotten again', async () => {
  const page = at.page();
  await page.click(await cell(page, 3, 'rx'));
  await keys('h');
  await sees(page, said, 'Heard now: Ullsmere Hill.');
  await page.click(await cell(page, 5, 'rx'));
  await press(page, 'Heard just now');
  await sees(page, said, 'Heard now: Ketterby Quay.');
  await page.focus('#find-in-plan');
  await page.type('#find-in-plan', 'heard<1h');
  await sees(page, '[aria-label="What is shown"]', '2 of 20');
  await page.$eval('#find-in-plan', (field) => (field as HTMLInputElement).select());
  await page.type('#find-in-plan', 'never heard 2 m');
  await sees(page, '[aria-label="What is shown"]', '6 of 20');
  await keys('Escape');
  await page.click(await cell(page, 3, 'name'));
  await show(page, 'Chosen');
  await sees(page, '[role=tabpanel][data-state=active]', /Heard.*Once, last/s);
  await press(page, 'Not after all');
  await sees(page, '[role=tabpanel][data-state=active]', 'Never yet, as far as anybody said.');
});

test('what falls off the end waits left over, and is placed again or dropped', async () => {
  const page = at.page();
  await page.click(await cell(page, 12, 'slot'));
  await keys('Shift+ArrowDown', 'Shift+ArrowDown', 'm');
  await choose(page, 'Arrange', 'Number the 3 chosen anew');
  await page.$eval('#arrange-slot', (field) => (field as HTMLInputElement).select());
  await page.type('#arrange-slot', '148');
  await sees(
    page,
    '[aria-label="Preview of the slots"]',
    /148Isle Weather North.*149Isle Weather South.*offIsle Weather Eastleft over/s,
  );
  await keys('Enter');
  await kept(page);
  await show(page, 'Over 1');
  await sees(page, '[aria-label="Left over"]', 'Isle Weather East');
  expect((await inSlot(14)) ?? null).toBeNull();
  await press(page, 'Place Isle Weather East');
  await kept(page);
  await until('in the first free slot', async () => (await inSlot(11))?.name === 'Isle Weather East');
  for (let n = 0; n < 2; n++) await at.undo();
  await until('all as it was', async () => (await inSlot(14))?.name === 'Isle Weather East');
});

test('find and replace shows each cell with what becomes of it, and is one step', async () => {
  const page = at.page();
  await keys('Control+h');
  await page.waitForSelector('#replace-find');
  await page.type('#replace-find', 'weather');
  await page.type('#replace-by', 'WX');
  await sees(page, '[aria-label="What is replaced"]', 'Isle Weather North Isle WX North');
  await press(page, 'Replace 6');
  await kept(page);
  expect((await inSlot(12))!.name).toBe('Isle WX North');
  await at.undo();
});

test('rows are inserted and counted down', async () => {
  const page = at.page();
  await page.click(await cell(page, 2, 'name'));
  await keys('Control+Shift+Enter');
  await page.waitForSelector('[aria-label="Receive, being typed"]');
  await page.keyboard.type('145,2');
  await keys('Enter');
  await kept(page);
  expect((await inSlot(3))!.rx).toBe(145_200_000);
  await page.click(await cell(page, 3, 'name'));
  await page.keyboard.type('Free 01');
  await keys('Enter', 'ArrowUp', 'Shift+ArrowDown', 'Shift+ArrowDown', 'Shift+ArrowRight');
  await keys('Control+Shift+D');
  await kept(page);
  await until('counted', async () => (await inSlot(5))?.name === 'Free 03');
  expect([(await inSlot(3))!.rx, (await inSlot(5))!.rx]).toEqual([145_200_000, expect.any(Number)]);
  for (let n = 0; n < 4; n++) await at.undo();
  await until('as it was', async () => (await inSlot(3))?.name === 'Ullsmere Hill');
});

test('a named mark is compared with today, and one channel taken back', async () => {
  const page = at.page();
  await show(page, 'History');
  const { revision } = await read();
  await press(page, `Mark revision ${revision}`);
  await page.keyboard.type('before the regatta');
  await keys('Enter');
  await sees(page, '[role=tabpanel][data-state=active]', 'before the regatta');
  await page.click(await cell(page, 3, 'name'));
  await page.keyboard.type('Renamed');
  await keys('Enter');
  await page.click(await cell(page, 5, 'slot'));
  await keys('Delete');
  await sees(page, said, 'Removed 1.');
  await kept(page);
  await page.type('[aria-label="Find in the history"]', 'regatta');
  await press(page, 'Look at “before the regatta”');
  const then = '[aria-label="The plan at “before the regatta”"]';
  await sees(page, then, /003Renamed.*name: Ullsmere Hill → Renamed.*005Ketterby Quaygone since/s);
  await press(page, 'Take back Ketterby Quay');
  await kept(page);
  await until('it is back', async () => (await inSlot(5))?.name === 'Ketterby Quay');
  expect((await inSlot(3))!.name).toBe('Renamed');
  await press(page, 'All as it was');
  await sees(page, then, /003Ullsmere Hill145.6125/);
  await press(page, 'Take all of it back');
  await until('all is back', async () => (await inSlot(3))?.name === 'Ullsmere Hill');
  await kept(page);
});

test('two windows on one plan see each other’s edits and lose none', async () => {
  const page = at.page();
  const other = await page.browser().newPage();
  await other.setViewport({ width: 1280, height: 800 });
  await open(other, PLAN);
  // Both are looked at: what a page in the background does not see it sees when it is looked at again.
  await other.bringToFront();
  await atRest(other);
  await at.world().api(`/api/plans/${PLAN}/edits`, 'POST', {
    base: (await read()).revision,
    edit: { name: 'change', changes: [{ id: (await inSlot(2))!.id, set: { name: 'From elsewhere' } }] },
  });
  await sees(other, await cell(other, 2, 'name'), 'From elsewhere');
  await sees(other, said, 'Done in another window: Rename');
  await other.focus('[role=grid]');
  await other.click(await cell(other, 4, 'name'));
  await other.keyboard.type('Own');
  await strike(other, 'Enter');
  await kept(other);
  await page.bringToFront();
  await sees(page, await cell(page, 4, 'name'), 'Own');
  expect((await inSlot(2))!.name).toBe('From elsewhere');
  await other.close();
  for (let n = 0; n < 2; n++) await at.undo();
});

test('all like one are chosen, and removing says what else had them', async () => {
  const page = at.page();
  await page.click(await cell(page, 12, 'name'));
  await show(page, 'Chosen');
  await press(page, 'the same finding');
  await sees(page, said, '6 chosen.');
  await sees(page, 'footer', '6 chosen');
  expect(await textOf(page, '[role=tabpanel][data-state=active]')).toMatch(/6 channels/);
});

test('another plan beside this one: its channels are taken by a press, or dropped before a row', async () => {
  const page = at.page();
  const id = await newPlan('Beside');
  await keys('Control+k');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('another plan beside');
  await keys('Enter');
  await page.waitForSelector('[aria-label="Find in the other plan"]');
  await choose(page, 'Beside this plan', 'Ketterby weekend');
  await press(page, 'Take Ullsmere Hill');
  await until('it is taken', async () => (await channelsOf(id)).channels.length === 1);
  await sees(page, '[aria-label="Channels of the other plan"]', 'is here already');
  // Dragged to the first row it stands before that.
  await page.type('[aria-label="Find in the other plan"]', 'farrow');
  const drag = await page.waitForSelector('[aria-label="Channels of the other plan"] [draggable]');
  const row = await page.waitForSelector('#cell-0-name');
  await page.evaluate(
    (from, to) => {
      const data = new DataTransfer();
      from.dispatchEvent(new DragEvent('dragstart', { bubbles: true, dataTransfer: data }));
      const { top, left } = to.getBoundingClientRect();
      const where = {
        bubbles: true,
        cancelable: true,
        dataTransfer: data,
        clientX: left + 5,
        clientY: top + 2,
      };
      to.dispatchEvent(new DragEvent('dragover', where));
      to.dispatchEvent(new DragEvent('drop', where));
    },
    drag!,
    row!,
  );
  await until('both', async () => (await channelsOf(id)).channels.length === 2);
  await kept(page);
  expect((await channelsOf(id)).channels.map(({ name }) => name)).toEqual(['Farrow Point', 'Ullsmere Hill']);
});
