import type { HTTPRequest } from 'puppeteer-core';
import { SEED } from '../src/core/property.test.kit';
import { seeded } from '../src/sim/random';
import { atTable } from './at-table';
import { cell, kept, onPlanPage, sees, textOf, until, type Channel } from './harness';
import { makePlanWithGap, strikeAtRandom } from './random-keys';

/** What is typed belongs to the record and the field on which typing began, or to nothing. */

const at = onPlanPage();
const { page, keys, world } = at;
const { open, channelsOf } = atTable(at);

async function planWithGap(name: string): Promise<string> {
  const id = await makePlanWithGap(world(), name);
  await open(page(), id);
  return id;
}
/** The channels by slot, as far as they are told apart here. */
const shown = (channels: readonly Channel[]) =>
  new Map(channels.map(({ slot, name, rx, tx }) => [slot, { name, rx, tx }]));
const toTheEmptyRow = () => keys('Control+End', 'Home', 'ArrowRight');

test('in the empty row Tab goes on in the channel that was typed, wherever its slot has put it', async () => {
  const id = await planWithGap('Gap');
  const before = shown((await channelsOf(id)).channels);
  await toTheEmptyRow();
  await keys('ArrowRight');
  await page().keyboard.type('145.55');
  await keys('Tab');
  await page().keyboard.type('145.00');
  await keys('Enter');
  await kept(page());
  const after = shown((await channelsOf(id)).channels);
  expect(after.get(11)).toEqual({ name: '', rx: 145_550_000, tx: 145_000_000 });
  after.delete(11);
  expect(after).toEqual(before);
});

test('ten lines from paper, name first, without the mouse and without a wrong cell', async () => {
  const id = await planWithGap('Paper');
  const before = shown((await channelsOf(id)).channels);
  await toTheEmptyRow();
  for (let line = 0; line < 10; line++) {
    await page().keyboard.type(`Line ${line}`);
    await keys('Tab');
    await page().keyboard.type(`145.${600 + line * 25}`);
    await keys('Tab');
    await page().keyboard.type('-0.6');
    await keys('Enter');
  }
  await kept(page());
  const after = shown((await channelsOf(id)).channels);
  // The gap first, then behind the last.
  const slots = [11, 21, 22, 23, 24, 25, 26, 27, 28, 29];
  slots.forEach((slot, line) => {
    const rx = 145_600_000 + line * 25_000;
    expect([slot, after.get(slot)]).toEqual([slot, { name: `Line ${line}`, rx, tx: rx - 600_000 }]);
    after.delete(slot);
  });
  expect(after).toEqual(before);
});

test('in a table sorted by name Tab goes on in the channel that was renamed', async () => {
  const id = await planWithGap('Sorted');
  await keys('Control+k');
  await page().keyboard.type('show the table by name');
  await until('the command', async () =>
    (await textOf(page(), '[cmdk-item][aria-selected=true]')).includes('by name'),
  );
  await keys('Enter');
  await page().waitForSelector('[role=columnheader][aria-sort=ascending]');
  await page().click(await cell(page(), 0, 'name'));
  await page().keyboard.type('Zulu');
  await keys('Tab');
  await page().keyboard.type('145.9');
  await keys('Enter');
  await kept(page());
  const { channels } = await channelsOf(id);
  const changed = channels.filter(
    ({ slot, name, rx }) =>
      name !== `Station ${String.fromCharCode(65 + slot)}` || rx !== 145_000_000 + slot * 25_000,
  );
  expect(changed.map(({ slot, name, rx }) => [slot, name, rx])).toEqual([[0, 'Zulu', 145_900_000]]);
});

/** Holds requests that `holds` says back until it is let go of. */
async function holding(holds: (request: HTTPRequest) => boolean) {
  const held: HTTPRequest[] = [];
  const hear = (request: HTTPRequest) => {
    if (holds(request)) held.push(request);
    else void request.continue();
  };
  await page().setRequestInterception(true);
  page().on('request', hear);
  return {
    held,
    async letGo() {
      page().off('request', hear);
      for (const request of held.splice(0)) await request.continue();
      await page().setRequestInterception(false);
    },
  };
}

test.each([
  ['Control+k', '[cmdk-input]'],
  ['Control+h', '#replace-find'],
])(
  'what is typed right after %s goes into what opens, though its code is still on the way',
  async (chord, field) => {
    const id = await planWithGap(`Held ${chord}`);
    const before = shown((await channelsOf(id)).channels);
    await page().reload();
    await kept(page());
    await page().waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
    const code = await holding((request) => request.url().includes('/_next/static/'));
    await page().focus('[role=grid]');
    await keys(chord);
    await page().keyboard.type('squelch');
    // The page hears of the key, and asks for the code, whenever the machine comes to it.
    await until('its code to be asked for', async () => code.held.length > 0).finally(code.letGo);
    await until(
      'what was typed in the field',
      async () =>
        (await page()
          .$eval(field, (input) => (input as HTMLInputElement).value)
          .catch(() => '')) === 'squelch',
    );
    await keys('Escape');
    expect(shown((await channelsOf(id)).channels)).toEqual(before);
  },
);

test('a cell that is not understood is kept with the plan, is a stop, and is named before a write', async () => {
  const id = await planWithGap('Marked');
  await page().click(await cell(page(), 3, 'access'));
  await page().keyboard.type('loud');
  // Leaving the field keeps the text.
  await page().click(await cell(page(), 5, 'name'));
  await sees(page(), await cell(page(), 3, 'access'), 'loud');
  await kept(page());
  await page().goto(`${world().url}/plans/${id}/organise`);
  await page().waitForSelector('main');
  await open(page(), id);
  await sees(page(), await cell(page(), 3, 'access'), 'loud');
  await sees(page(), '[aria-label=Findings]', 'is not understood');
  await page().click(await cell(page(), 3, 'access'));
  await page().keyboard.type('88.5');
  await keys('Enter');
  await kept(page());
  const { channels } = await channelsOf(id);
  const marked = channels.find(({ slot }) => slot === 3) as Channel & { unclear?: object };
  expect([marked.access.send, marked.unclear]).toEqual([{ kind: 'tone', tone: 885 }, undefined]);
  expect([marked.tx, marked.scan]).toEqual([marked.rx, true]);
});

test('in Organise Ctrl+Z takes back the last change of the plan, and in a field what is typed there first', async () => {
  const id = await planWithGap('Undone elsewhere');
  await page().click(await cell(page(), 3, 'name'));
  await page().keyboard.type('Renamed');
  await keys('Enter');
  await kept(page());
  await page().goto(`${world().url}/plans/${id}/organise`);
  await kept(page());
  await keys('Control+z');
  await until('the name as it was', async () =>
    (await channelsOf(id)).channels.some(({ slot, name }) => slot === 3 && name === 'Station D'),
  );
  await keys('Control+y');
  await until('the new name', async () =>
    (await channelsOf(id)).channels.some(({ name }) => name === 'Renamed'),
  );
});

test('whatever is struck while code and answers are on the way, no channel changes but where typing began', async () => {
  const random = seeded(SEED);
  let began = 0;
  for (let round = 0; round < 6; round++) {
    const id = await planWithGap(`Keys ${round}`);
    const struck = await strikeAtRandom(page(), world(), id, random);
    expect([`round ${round}`, struck.wrong]).toEqual([`round ${round}`, []]);
    began += struck.began;
  }
  expect(began).toBeGreaterThan(50);
});
