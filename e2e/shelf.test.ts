import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { decodeImage, ownedMask } from '../src/core/image';
import { gannetM8 } from '../src/core/models/gannet-m8';
import { newMemory, UNITS } from '../src/sim/bench/units';
import {
  cell,
  choose,
  kept,
  atRest,
  PLAN,
  press,
  sees,
  textOf,
  type,
  until,
  worldAndBrowser,
} from './harness';

/** One plan and a shelf of different radios. */

const { world, page, errors } = worldAndBrowser();
afterEach(() => expect(errors().splice(0)).toEqual([]));

interface Made {
  channels: { id: string; name: string; list: number; slot: number; rx: number; scan: boolean }[];
  zones: { name: string; members: string[] }[];
  setUps: { name: string; sides: { zone: string | null; begins: string }[] }[];
  settings: Record<string, Record<string, unknown>>;
}
const planOf = async (id: string) => (await world().api<{ plan: Made }>(`/api/plans/${id}`)).body.plan;
const idHere = async () => /plans\/(pl_[a-z0-9]+)/.exec(page().url())![1]!;

test('a plan for the Tern P2 is held against other radios, moved to the Gannet, cut into three days and two quick set-ups', async () => {
  await page().goto(`${world().url}/plans/${PLAN}/radios`);
  await sees(page(), '[aria-label="What each radio keeps"]', 'Gannet M8');
  // 20 channels of the demo: one tone that nobody has; the Petrel lacks narrow FM and codes too
  await sees(page(), '[aria-label="What each radio keeps"]', /Petrel HF9.*4 left out.*loses 3/);
  await press(page(), 'Make one for the Gannet M8');
  await sees(page(), 'form[aria-label="A plan for the Gannet M8"]', '6 to other slots');
  await press(page(), 'Make the plan');
  await until('the new plan', async () => (await idHere()) !== PLAN && /\/pl_\w+$/.test(page().url()));
  const id = await idHere();
  const made = await planOf(id);
  for (const { list, rx } of made.channels) expect([rx, list]).toEqual([rx, rx > 400_000_000 ? 1 : 0]);

  await press(page(), 'Organise');
  await sees(page(), '[aria-label="Left channels"] h2', 'Left 15');
  await sees(page(), '[aria-label="Right channels"] h2', 'Right 5');
  await press(page(), 'Days of a trip');
  for (const [day, town] of ['Tamsin Quay', 'Ketterby', 'Garrowick'].entries()) {
    const field = await page().waitForSelector(`::-p-aria([name="Day ${day + 1}"][role="combobox"])`);
    await field!.type(town);
  }
  await press(page(), 'Make 3 banks');
  await sees(page(), '[aria-label=banks] h2 + span', '3 of 8');
  // the first channel is taken out of the second day by its key
  await page().click('[role=listbox][aria-label=Left] [role=option]');
  await page().keyboard.press('2');
  await sees(page(), 'main > footer', 'Took 1 channel out of “Day 2”');

  await press(page(), 'Quick set-ups');
  await press(page(), 'New quick set-up');
  await press(page(), 'New quick set-up');
  await choose(page(), 'Bank', 'Day 1');
  await sees(page(), '[aria-label="Left side of “Set-up 1”"]', 'Left: Day 1');
  await kept(page());
  const { zones, setUps } = await planOf(id);
  expect(zones.map(({ name, members }) => [name, members.length])).toEqual([
    ['Day 1', 20],
    ['Day 2', 19],
    ['Day 3', 20],
  ]);
  expect(setUps).toHaveLength(2);
  expect(setUps[0]!.sides[0]!.zone).not.toBeNull();

  // what changes where it came from is offered here
  await world().api(`/api/plans/${PLAN}/edits`, 'POST', {
    base: 1,
    edit: { name: 'change', changes: [{ id: made.channels[0]!.id, set: { name: 'Offered name' } }] },
  });
  await press(page(), 'Radios');
  await sees(page(), '[aria-label="Where it came from"]', 'Offered name');
  await press(page(), 'Take: Offered name, name');
  await sees(page(), '[aria-label="Where it came from"]', 'Nothing new there');
  await kept(page());
  expect((await planOf(id)).channels.some(({ name }) => name === 'Offered name')).toBe(true);

  // and what changes here is offered there
  await world().api(`/api/plans/${id}/edits`, 'POST', {
    base: 1,
    edit: { name: 'change', changes: [{ id: made.channels[1]!.id, set: { name: 'Offered back' } }] },
  });
  await page().goto(`${world().url}/plans/${PLAN}/radios`);
  await (await page().waitForSelector('[aria-label="Plans made of this one"] [aria-expanded]'))!.click();
  await sees(page(), '[aria-label="Plans made of this one"]', 'Offered back');
  await press(page(), 'Take all that do not clash');
  await kept(page());
  expect((await planOf(PLAN)).channels.some(({ name }) => name === 'Offered back')).toBe(true);
});

test('the face turns through the bank that it is turned to, and past what is not scanned', async () => {
  await page().goto(`${world().url}/plans/pl_threedays`);
  const display = (words: string | RegExp) => sees(page(), '[aria-label=Display]', words);
  await page().click(await cell(page(), 9, 'name'));
  await display('009');
  await press(page(), 'Turn up');
  await display('020');
  await press(page(), 'What turning goes through');
  await choose(page(), 'Turned to the bank', 'Day 1');
  // 020 is in no bank: it comes to the first of the bank
  await display('001');
  await choose(page(), 'Stops at', 'What is scanned');
  await page().keyboard.press('Escape');
  const { zones, channels } = await planOf('pl_threedays');
  const day = zones.find(({ name }) => name === 'Day 1')!.members;
  const left = channels.filter(({ id, list, scan }) => list === 0 && scan && day.includes(id));
  for (const { slot } of [...left.slice(1), left[0]!]) {
    await press(page(), 'Turn up');
    await display(String(slot).padStart(3, '0'));
  }
});

test('channels are carried to the other side by key and by the mouse', async () => {
  await page().goto(`${world().url}/plans/pl_threedays/organise`);
  await page().waitForSelector('[role=listbox][aria-label=Left] [role=option]');
  await page().click('[role=listbox][aria-label=Left] [role=option]:nth-of-type(2)');
  await page().keyboard.press('x');
  await sees(page(), 'main > footer', 'Carried 1 channel to the right');
  await sees(page(), '[aria-label="Right channels"] h2', 'Right 7');
  await press(page(), 'Undo');
  await sees(page(), '[aria-label="Right channels"] h2', 'Right 6');
  const row = (await page().$('[role=listbox][aria-label=Left] [role=option]'))!;
  const target = (await page().$('[aria-label=banks] li:nth-of-type(3)'))!;
  await page().setDragInterception(true);
  await row.dragAndDrop(target);
  await page().setDragInterception(false);
  await sees(page(), 'main > footer', 'All of them are in “Day 3” already');
  await kept(page());
});

test('an odd split is read on the Petrel’s face, key up and key down', async () => {
  await page().goto(`${world().url}/plans/pl_basestation`);
  await page().click(await cell(page(), 31, 'rx'));
  await sees(page(), '[aria-label=Display]', /433\.16250.*SPLIT/);
  const key = (await page().waitForSelector('::-p-aria([name="Hold to send"][role="button"])'))!;
  const box = (await key.boundingBox())!;
  await page().mouse.move(box.x + 20, box.y + 8);
  await page().mouse.down();
  await sees(page(), '[aria-label=Display]', /434\.76250.*ON AIR.*SPLIT/);
  await page().mouse.up();
  await sees(page(), '[aria-label=Display]', '433.16250');
  // turned up it stands at the next memory, from the last to the first
  await press(page(), 'Turn up');
  await sees(page(), '[aria-label=Display]', '3.66000');
  // the shift that it stores for the band is set: that one is plain now
  await press(page(), 'Radios');
  await (await page().waitForSelector('::-p-text(Set on the Petrel HF9)'))!.click();
  await page().type('#setting-shift70cm', '1600');
  await page().keyboard.press('Enter');
  await kept(page());
  await press(page(), 'Channels');
  await page().click(await cell(page(), 31, 'rx'));
  await sees(page(), '[aria-label=Display]', /433\.16250.*up 1\.600/);
});

test('a plan for the Plover does not send digital until its call sign is there', async () => {
  await page().goto(`${world().url}/plans/pl_harbouroffice`);
  await sees(page(), '[aria-label=Findings]', 'transmits C4FM only when its own call sign is set');
  await press(page(), 'Set the call sign Q7KWD');
  await until('no finding', async () => !(await textOf(page(), 'aside')).includes('transmits C4FM'));
  await kept(page());
  expect((await planOf('pl_harbouroffice')).settings).toEqual({ 'plover-f5': { ownCall: 'Q7KWD' } });
});

test('an image file is opened, changed and saved; a damaged one as far as it can be read', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-image-'));
  const memory = newMemory(UNITS.find(({ id }) => id === 'gannet-2')!);
  const [whole, short] = [join(folder, 'club.bin'), join(folder, 'short.bin')];
  writeFileSync(whole, memory);
  writeFileSync(short, memory.subarray(0, 0x2000));
  const openFile = async (path: string) => {
    await page().goto(world().url);
    const input = (await page().waitForSelector('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
  };
  await openFile(short);
  await sees(page(), 'main [role=alert]', 'has 8192 bytes and not 32768');
  await press(page(), 'Open what can be read');
  await until('the plan', async () => /plans\/pl_/.test(page().url()));
  errors().splice(0);
  await openFile(whole);
  await until('the plan', async () => /plans\/pl_/.test(page().url()));
  await type(page(), 10, 'name', 'Hut');
  await kept(page());
  await press(page(), 'Radios');
  await sees(page(), '[aria-label="As an image"]', '32,768 bytes');
  const saved = Uint8Array.from(
    await page().evaluate(async () => {
      const link = [...document.querySelectorAll('a')].find(
        ({ textContent }) => textContent === 'Save the image',
      )!;
      return [...new Uint8Array(await (await fetch(link.href)).arrayBuffer())];
    }),
  );
  const read = decodeImage(saved, gannetM8);
  expect(read.ok && read.value.channels.find(({ slot }) => slot === 10)).toMatchObject({ name: 'Hut' });
  const mask = ownedMask(gannetM8);
  expect(saved.every((byte, at) => (byte & ~mask[at]!) === (memory[at]! & ~mask[at]!))).toBe(true);
  rmSync(folder, { recursive: true, force: true });
});

test('an image that is dropped on whichever screen is opened', async () => {
  const memory = newMemory(UNITS.find(({ id }) => id === 'tern-2')!);
  const drop = (bytes: number[]) =>
    page().evaluate((of) => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File([Uint8Array.from(of)], 'spare.bin'));
      for (const kind of ['dragover', 'drop'])
        window.dispatchEvent(new DragEvent(kind, { dataTransfer, bubbles: true, cancelable: true }));
    }, bytes);
  for (const path of ['bench', 'plans/pl_threedays']) {
    await page().goto(`${world().url}/${path}`);
    await page().waitForSelector('main');
    await atRest(page());
    await drop([...memory]);
    await until('the plan', async () => /plans\/pl_(?!threedays)/.test(page().url()));
    await sees(page(), 'h1', 'spare');
  }
  // what is no image is said there, and the screen stays
  await drop([1, 2, 3]);
  await sees(page(), '[role=alert]', 'spare.bin');
  errors().splice(0);
});

test('a write to the Curlew says before and after that it wants to be switched off and on', async () => {
  await world().atBench('/bench/radios/curlew-1', { plugged: true });
  const plan = await planOf('pl_rucksack');
  const settings = { 'curlew-x1': { ...plan.settings['curlew-x1'], gnss: false } };
  await world().api('/api/plans/pl_rucksack/edits', 'POST', {
    base: 1,
    edit: { name: 'describe', set: { settings } },
  });
  await page().goto(`${world().url}/bench?plan=pl_rucksack`);
  await sees(page(), 'h2', 'Oriel Curlew X1');
  await press(page(), 'Read');
  await sees(page(), '[aria-label="Under way"]', 'was read');
  await sees(
    page(),
    '[aria-label="What the write changes"]',
    /GNSS receiver.*off, was on.*wants switching off and on/,
  );
  await press(page(), 'Write to OR110206');
  await press(page(), 'Write it');
  await sees(page(), '[aria-label="Under way"]', 'Switch it off and on: GNSS receiver changed');
  await sees(page(), '[aria-label="Write a plan"]', 'Nothing changes');
  // held against a plan, the unit has all of it
  await page().goto(`${world().url}/plans/pl_rucksack/radios`);
  await press(page(), 'Oriel Plover F5');
  await press(page(), 'Oriel Curlew X1 OR110206');
  await sees(page(), '[aria-label="What each radio keeps"]', /OR110206.*all of it is in it now/);
});

/** What lies beside the window, though no pane of its own scrolls there. */
const beside = () =>
  page().evaluate(() => {
    const clipped = (element: Element): boolean => {
      const parent = element.parentElement!;
      if (parent.tagName === 'MAIN') return false;
      return getComputedStyle(parent).overflowX !== 'visible' &&
        parent.getBoundingClientRect().right <= window.innerWidth
        ? true
        : clipped(parent);
    };
    return [...document.querySelectorAll('main *')]
      .filter((one) => one.getBoundingClientRect().right > window.innerWidth + 1 && !clipped(one))
      .map((one) => `${one.tagName} ${one.textContent.slice(0, 40)}`);
  });

test.each([
  ['bench?plan=pl_rucksack', '[aria-label="Write a plan"]'],
  ['plans/pl_threedays', '[role=grid]'],
  ['plans/pl_threedays/organise', '[role=listbox]'],
  ['plans/pl_threedays/radios', '[aria-label="Channels and radios"]'],
  ['plans/pl_rucksack/radios', '[aria-label="Channels and radios"]'],
  ['find?plan=pl_threedays', 'h1'],
  ['', 'h1'],
])('at 1024 and 1280 pixels nothing of /%s lies beside the window', async (path, there) => {
  for (const width of [1024, 1280]) {
    await page().setViewport({ width, height: 800 });
    await page().goto(`${world().url}/${path}`);
    await page().waitForSelector(there);
    await atRest(page());
    expect(await beside()).toEqual([]);
  }
});
