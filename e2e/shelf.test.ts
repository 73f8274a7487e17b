import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { decodeImage, ownedMask } from '../src/core/image';
import { gannetM8 } from '../src/core/models/gannet-m8';
import { newMemory, UNITS } from '../src/sim/bench/units';
import { cell, choose, kept, PLAN, press, sees, textOf, type, until, worldAndBrowser } from './harness';

/** One plan and a shelf of different radios. */

jest.setTimeout(60_000);

const { world, page, errors } = worldAndBrowser();
afterEach(() => expect(errors().splice(0)).toEqual([]));

interface Made {
  channels: { id: string; name: string; list: number; slot: number; rx: number }[];
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
