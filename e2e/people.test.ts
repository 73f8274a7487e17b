import { listed } from '../src/sim/roll/service';
import { violationsInBothThemes } from './axe';
import { press, sees, textOf, until, worldAndBrowser } from './harness';

/** From nobody to everybody: the roll is loaded, somebody is found as one types, pinned and noted, and outlives the next roll. */

const at = worldAndBrowser();
const { world, page } = at;
/** As many as the stand-in of the tests has. */
const PEOPLE = 20_000;
const NEXT = listed(PEOPLE - 1);

const SEARCH = 'input[type=search]';
async function lookFor(words: string): Promise<void> {
  await page().click(SEARCH, { count: 3 });
  await page().keyboard.type(words);
}

test('where nobody is known it says what to do; the roll is loaded, with what is told on the way', async () => {
  await page().goto(`${world().url}/people`);
  await sees(page(), '[aria-label="Nobody yet"]', 'Nobody is known yet');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await press(page(), 'Load the Ident Roll');
  await sees(page(), '[role=listbox]', listed(0).call);
  await sees(page(), 'main', `All ${PEOPLE.toLocaleString('en')}`);
  await sees(page(), '[aria-label="The roll"]', '20,000 people are loaded.');
});

test('all of them scroll as one list, by keys too, and the last is there', async () => {
  await page().focus('[role=listbox]');
  await page().keyboard.press('End');
  await sees(page(), '[role=listbox]', String(NEXT.id));
  await page().keyboard.press('End');
  await until('the last is chosen', async () =>
    (await textOf(page(), '[aria-label=Chosen]')).includes(String(NEXT.id)),
  );
  await page().keyboard.press('ArrowUp');
  await sees(page(), '[aria-label=Chosen]', String(listed(PEOPLE - 2).id));
  const count = await page().$$eval('[role=option]', (all) => all.length);
  // Of twenty thousand a few dozen are drawn.
  expect(count).toBeLessThan(80);
});

test('somebody is found as one types, pinned and noted; a fresh roll that knows them no more leaves both', async () => {
  const one = listed(777);
  await lookFor(`${one.call.toLowerCase()} ${one.last.slice(0, 4)}`);
  await sees(page(), '[role=listbox][aria-label=Found]', `${one.first} ${one.last}`);
  await page().waitForFunction((id) => document.querySelector(`#person-${id}`) !== null, {}, one.id);
  await page().click(`#person-${one.id}`);
  await sees(page(), '[aria-label=Chosen]', one.id.toString(16).toUpperCase());
  await press(page(), 'Pin');
  await page().type('[aria-label=Chosen] input', 'Net control');
  await press(page(), 'Keep the note');
  await sees(page(), '[aria-label="Pinned and noted"]', 'Net control');
  expect(await violationsInBothThemes(page())).toEqual([]);
  await lookFor('nobody of this name');
  await sees(page(), 'main', 'Nobody');

  await world().atBench('/roll/changes', { drop: [one.id], put: [{ ...listed(0), town: 'Wend' }] });
  await press(page(), 'Load it anew');
  await sees(page(), '[aria-label="The roll"]', '19,999 people are loaded. 0 added, 1 changed, 1 gone.');
  await page().reload();
  await sees(page(), '[aria-label="Pinned and noted"]', 'Net control');
  await press(page(), `${one.call} ${one.first} ${one.last} Net control`);
  await sees(page(), '[aria-label=Chosen]', 'does not know this number any more');
});

test('of a roll that breaks off nothing is taken: who was there stays, and it says so', async () => {
  await world().atBench('/roll/faults', { kind: 'cut off' });
  await press(page(), 'Load it anew');
  await sees(page(), '[aria-label="The roll"]', 'The people that you had are as they were.');
  await sees(page(), 'main', 'All 19,999');
  await world().atBench('/roll/faults', { kind: 'none' });
});
