import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { choose, press, sees, until, worldAndBrowser } from './harness';

/** A radio without a cable: saved to its card in the radio, read and written in Veridon, loaded in the radio, each from its own side. */

const at = worldAndBrowser();
const { world, page } = at;
const SERIAL = 'OR520144';
const RADIO = 'section[aria-label="Plover F5, harbour office"]';

/** Presses a button of the radio, on the simulated bench’s own page. */
async function onRadio(name: string): Promise<void> {
  if (!page().url().startsWith(world().bench)) await page().goto(world().bench);
  await page().waitForSelector(RADIO);
  const button = await page().waitForSelector(
    `${RADIO} ::-p-xpath(.//button[text()="${name}"][not(@disabled)])`,
  );
  await button!.click();
}
const radioSays = (what: string) => sees(page(), `${RADIO} [aria-label="What it shows of the card"]`, what);
const toBench = (more = '') => page().goto(`${world().url}/bench${more}`);

let planId: string;

test('the card is saved in the radio, goes into the computer, and is read there', async () => {
  await onRadio('Save all to card');
  await radioSays('SAVED');
  await onRadio('Card into the computer');
  await toBench();
  await sees(page(), 'h2', 'Oriel Plover F5');
  await sees(page(), '[aria-label=Radios]', 'card is in');
  await press(page(), 'Read');
  await sees(page(), '[aria-label="Under way"]', `${SERIAL} was read`);
  await press(page(), 'Make a plan of it');
  await page().waitForFunction(() => /\/plans\/pl_/.test(location.pathname));
  planId = /pl_[a-z0-9]+/.exec(page().url())![0];
});

test('a plan is written on it; in the radio it is when the radio has loaded it, and Veridon says which', async () => {
  const { body } = await world().api<{
    plan: { channels: { id: string; slot: number }[] };
    revision: number;
  }>(`/api/plans/${planId}`);
  const first = body.plan.channels.find(({ slot }) => slot === 1)!;
  const edit = { name: 'change', changes: [{ id: first.id, set: { name: 'Harbour call' } }] };
  await world().api(`/api/plans/${planId}/edits`, 'POST', { base: body.revision, edit });
  await toBench(`?plan=${planId}`);
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  await sees(page(), '[aria-label="Under way"]', 'all 74,414 bytes read back as they were sent');
  await sees(page(), '[aria-label="On the card"]', 'not yet in the radio');
  await onRadio('Put the card back');
  await onRadio('Load all from card');
  await radioSays('LOADED');
  await sees(page(), `${RADIO} [aria-label=Display]`, 'Harbour call');
  await onRadio('Card into the computer');
  await toBench(`?plan=${planId}`);
  await sees(page(), '[aria-label="On the card"]', 'The radio has loaded this card');
});

async function renameFirst(name: string): Promise<void> {
  const { body } = await world().api<{
    plan: { channels: { id: string; slot: number }[] };
    revision: number;
  }>(`/api/plans/${planId}`);
  const first = body.plan.channels.find(({ slot }) => slot === 1)!;
  const edit = { name: 'change', changes: [{ id: first.id, set: { name } }] };
  await world().api(`/api/plans/${planId}/edits`, 'POST', { base: body.revision, edit });
}

test('taken out in the middle of a write it is half a card: the radio goes on as it was, and the write is made anew', async () => {
  const newestJob = async () =>
    (await world().api<{ jobs: { id: string; state: string }[] }>('/api/jobs')).body.jobs[0]!;
  for (let tries = 1; ; tries++) {
    await world().atBench('/bench/radios/plover-1/faults', { kind: 'pull', atByte: 20_000 });
    const before = (await newestJob()).id;
    await toBench(`?plan=${planId}`);
    await press(page(), `Write to ${SERIAL}`);
    await press(page(), 'Write it');
    const { state } = await until('the end of the write', async () => {
      const job = await newestJob();
      return job.id !== before && job.state !== 'running' && job;
    });
    if (state !== 'done') break;
    // The bench is a process of its own: it has looked when all was written. Something else is written then.
    await world().atBench('/bench/radios/plover-1/faults', { kind: 'none' });
    await renameFirst(`Try ${tries}`);
  }
  await sees(page(), '[aria-label="Under way"]', 'The card was taken out of the reader');
  await onRadio('Load all from card');
  await radioSays('CARD ERROR');
  await sees(page(), `${RADIO} [aria-label=Display]`, 'Harbour call');
  await onRadio('Card into the computer');
  await toBench(`?plan=${planId}`);
  await sees(page(), 'main', 'The card is copied in part');
  await press(page(), 'Go on with the write');
  await sees(page(), '[aria-label="Under way"]', 'holds what was to be written');
});

test('a card in another machine’s reader: its files are saved as a zip, and a zip of a card is read and sealed', async () => {
  await renameFirst('By the zip');
  await toBench(`?plan=${planId}`);
  await sees(page(), '[aria-label="Write a plan"]', 'Is the card in another machine?');
  const link = (await page().$('::-p-aria([name="Save its files as a zip"])'))!;
  const saved = await link.evaluate(async (anchor) => {
    const answer = await fetch((anchor as HTMLAnchorElement).href);
    return {
      type: answer.headers.get('content-type'),
      bytes: [...new Uint8Array(await answer.arrayBuffer())],
    };
  });
  expect(saved.type).toBe('application/zip');
  const folder = mkdtempSync(join(tmpdir(), 'veridon-zip-'));
  const zip = join(folder, 'card.zip');
  writeFileSync(zip, Buffer.from(saved.bytes));
  const input = await page().waitForSelector('input[aria-label="Zip of a card"]');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
  await sees(
    page(),
    '[role=status]',
    `The card of ${SERIAL} was read; its content is kept as a sealed copy.`,
  );
  await sees(page(), '[aria-label="In the radio"]', 'By the zip');
  // What is none is refused in words, and nothing is sealed.
  writeFileSync(zip, 'Greetings from the isles');
  await (input as ElementHandle<HTMLInputElement>).uploadFile(zip);
  await sees(page(), 'main', 'This is no zip archive');
  rmSync(folder, { recursive: true });
});

test('a plan that is worked on for one radio says so, on its own pages and at the write', async () => {
  // It was made of what was read of that radio.
  await page().goto(`${world().url}/plans/${planId}/radios`);
  await sees(page(), '[aria-label="The radio that it is worked on for"]', SERIAL);
  await sees(
    page(),
    '[aria-label="The radio that it is worked on for"]',
    'Its memory does not tell how it was made',
  );
  await choose(page(), 'Worked on for', 'Any Plover F5');
  await until('linked to none', async () => {
    const { body } = await world().api<{ plan: { unit: unknown } }>(`/api/plans/${planId}`);
    return body.plan.unit === null;
  });
  await page().keyboard.press('Escape');
  await world().api(`/api/plans/${planId}/undo`, 'POST');
  await toBench();
  await sees(page(), '[aria-label="Write a plan"]', 'for this radio');
});
