import { violationsInBothThemes } from './axe';
import { press, sees, until, worldAndBrowser } from './harness';

/** A base station that follows its plan over a live cable: typed here it is there, turned there it is seen here, and a line that was gone is caught up. */

const at = worldAndBrowser();
const { world, page } = at;
const SERIAL = 'OR910031';

interface Seen {
  face: unknown;
  channel: { slot: number; name: string; rx: number } | null;
}
const onRadio = (what: object) => world().atBench('/bench/radios/petrel-1', what) as Promise<Seen>;
/** What stands in a memory of the radio, once somebody has turned to it. */
const inRadio = async (slot: number) => (await onRadio({ slot })).channel;
async function radioGets(slot: number, holds: (channel: Seen['channel']) => boolean): Promise<void> {
  await until(`what slot ${slot} is to hold`, async () => holds(await inRadio(slot)));
}
const cell = (row: number, column: string) => `#cell-${row}-${column}`;

let planId: string;
async function openPlan(): Promise<void> {
  await page().goto(`${world().url}/plans/${planId}`);
  await page().waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid');
}
async function type(row: number, column: string, text: string): Promise<void> {
  const { x, y } = (await page().evaluate(
    (where) => {
      const { left, top, width, height } = document.querySelector(where)!.getBoundingClientRect();
      return { x: left + width / 3, y: top + height / 2 };
    },
    cell(row, column),
  ))!;
  await page().mouse.click(x, y);
  await page().keyboard.type(text);
  await page().keyboard.press('Enter');
}

test('a radio that was read gets a plan, and from then on they follow each other', async () => {
  await onRadio({ plugged: true });
  const { body } = await world().api<{ plans: { id: string; modelId: string }[] }>('/api/plans');
  planId = body.plans.find(({ modelId }) => modelId === 'petrel-hf9')!.id;
  await page().goto(`${world().url}/bench?plan=${planId}`);
  await sees(page(), 'h2', 'Oriel Petrel HF9');
  await press(page(), 'Read');
  await sees(page(), '[aria-label="Under way"]', `${SERIAL} was read`);
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Follow each other');
  await sees(page(), '[aria-label="Follows a plan"]', 'follow each other');
  await sees(page(), '[aria-label=Radios]', 'live');
  expect(await inRadio(1)).toMatchObject({ name: 'Isles net', rx: 3_660_000 });
});

test('what is typed in the plan is in the radio; its knob and its keys are seen in the plan', async () => {
  await openPlan();
  await sees(page(), 'header', SERIAL);
  await type(0, 'name', 'Morning');
  await radioGets(1, (channel) => channel?.name === 'Morning');
  await onRadio({ slot: 4 });
  await sees(page(), 'header', 'at 004');
  await onRadio({ key: { slot: 4, rx: 14_300_000 } });
  await sees(page(), cell(3, 'rx'), '14.300');
  // One step of the history like any other.
  await press(page(), 'Undo');
  await sees(page(), cell(3, 'rx'), '14.250');
  await radioGets(4, (channel) => channel?.rx === 14_250_000);
});

test('while the cable is out both go on; put in again, each has what the other did, and what both did is asked', async () => {
  await onRadio({ plugged: false });
  await sees(page(), 'header', 'away');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await type(1, 'rx', '7.090');
  await type(0, 'name', 'Breakfast');
  await onRadio({ key: { slot: 1, name: 'EARLY' } });
  await onRadio({ key: { slot: 40, rx: 145_300_000, name: 'FOUND' } });
  await onRadio({ cable: 2, plugged: true });
  await sees(page(), 'header', '1 to decide');
  await radioGets(2, (channel) => channel?.rx === 7_090_000);
  await sees(page(), '[role=grid]', 'FOUND');
  await page().goto(`${world().url}/bench`);
  await sees(page(), '[aria-label="To be decided"]', 'The radio: EARLY');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await press(page(), '001, Breakfast: take the plan’s, Breakfast');
  await radioGets(1, (channel) => channel?.name === 'Breakfast');
});

test('ended, each keeps what it has', async () => {
  await press(page(), 'End this');
  await sees(page(), '[aria-label="Sealed copies"]', 'After a write');
  await page().waitForFunction(() => !document.querySelector('[aria-label="Follows a plan"]'));
  await openPlan();
  await type(0, 'name', 'Unheard');
  await sees(page(), 'header [role=status]', 'Kept');
  await new Promise((done) => setTimeout(done, 300));
  expect(await inRadio(1)).toMatchObject({ name: 'Breakfast' });
});
