import { channelsOfPlan } from './at-find';
import { choose, onPlanPage, press, sees, textOf, until, PLAN } from './harness';

/** From “I am here” or “I go there” to channels in their slots: by name, by map, along a route, from several directories. */

jest.setTimeout(180_000);

const at = onPlanPage();
const { keys } = at;
const rowsOf = () => at.page().$$eval('tbody tr[data-row]', (all) => all.map((row) => row.textContent ?? ''));
const open = async (query = '') => {
  await at.page().goto(`${at.world().url}/find?plan=${PLAN}${query}`);
  await at.page().waitForSelector('canvas');
};

test('before anything is typed the Isles are there, with all that is known; a press searches there', async () => {
  const page = at.page();
  await open();
  await sees(page, '[aria-label="How to begin"]', /1253 stations that this radio can use, of 2500/);
  const map = await page.waitForSelector('[aria-label="Map"] canvas');
  const { x, y, width, height } = (await map!.boundingBox())!;
  // The middle of the picture is the middle of the Isles: on Ullsmere.
  await page.mouse.click(x + width * 0.5, y + height * 0.42);
  await page.waitForSelector('tbody tr[data-row]');
  const address = new URL(page.url());
  expect(address.searchParams.get('km')).toBe('40');
  const [lat, lon] = address.searchParams.get('at')!.split(',').map(Number);
  expect(lat! > 51.9 && lat! < 53 && lon! > -30.6 && lon! < -29.4).toBe(true);
  const before = await rowsOf();
  // The address says it all: loaded again it is the same search.
  await page.reload();
  await page.waitForSelector('tbody tr[data-row]');
  expect(await rowsOf()).toEqual(before);
});

test('by the keyboard: the map is moved, its middle searched; the circle is made wider by its rim', async () => {
  const page = at.page();
  await open('&at=52.06,-29.84&name=Ketterby&km=40');
  await page.waitForSelector('tbody tr[data-row]');
  await page.focus('[role=application]');
  await keys('ArrowRight', 'ArrowRight', 'Enter');
  await until('a circle further east', async () => {
    const [, lon] = new URL(page.url()).searchParams.get('at')!.split(',').map(Number);
    return lon! > -29.8;
  });
  const map = await page.waitForSelector('[role=application] canvas');
  const { x, y, width, height } = (await map!.boundingBox())!;
  // A circle that was searched is in the middle, 24 px from the nearer sides; its rim is drawn out by half.
  await open('&at=52.06,-29.84&name=Ketterby&km=40');
  await page.waitForSelector('tbody tr[data-row]');
  const radius = Math.min(width, height) / 2 - 24;
  const [middleX, middleY] = [x + width / 2, y + height / 2];
  await page.mouse.move(middleX + radius, middleY);
  await page.mouse.down();
  await page.mouse.move(middleX + radius / 2, middleY, { steps: 4 });
  await page.mouse.up();
  await until('half the circle', async () => {
    const km = Number(new URL(page.url()).searchParams.get('km'));
    return km >= 17 && km <= 23;
  });
});

test('what is shown is asked for in words and facts, ordered by any column, and kept under a name', async () => {
  const page = at.page();
  await open('&at=52.06,-29.84&name=Ketterby&km=40');
  await page.waitForSelector('tbody tr[data-row]');
  await page.type('input[placeholder^="2 m"]', '70cm tone -off');
  await until('70 cm alone', async () => (await rowsOf()).every((row) => /4\d\d\.\d/.test(row)));
  await press(page, 'Receive');
  await until('in the order of frequency', async () => {
    const receive = (await rowsOf()).map((row) => Number(/(4\d\d\.\d+)/.exec(row)![1]!.slice(0, 7)));
    return receive.length > 3 && receive.every((hz, index) => index === 0 || hz >= receive[index - 1]!);
  });
  await press(page, 'Kept searches');
  await page.waitForSelector('[aria-label="Name of this search"]');
  await page.type('[aria-label="Name of this search"]', 'Town 70');
  await keys('Enter');
  await open();
  await press(page, 'Kept searches');
  await (await page.waitForSelector('::-p-text(Town 70)'))!.click();
  await page.waitForSelector('tbody tr[data-row]');
  expect(await page.$eval('input[placeholder^="2 m"]', (field) => (field as HTMLInputElement).value)).toBe(
    '70cm tone -off',
  );
});

test('the Isles Ledger wants an account, takes the right one, and its services are among the stations', async () => {
  const page = at.page();
  await open('&at=52.06,-29.84&name=Ketterby&km=40');
  await page.waitForSelector('tbody tr[data-row]');
  await press(page, 'Directories');
  await sees(
    page,
    '[role=dialog][aria-label=Directories]',
    /Relay Register.*2500 kept.*Isles Ledger.*0 kept/s,
  );
  const form = '[aria-label="Account for the Isles Ledger"]';
  const fields = async (name: string, password: string) => {
    const [first, second] = await page.$$(`${form} input`);
    await first!.click({ count: 3 });
    await first!.type(name);
    await second!.click({ count: 3 });
    await second!.type(password);
    await press(page, 'Use this account');
  };
  await fields('keeper', 'wrong');
  await sees(page, `${form} [role=alert]`, 'does not take this name and password');
  await fields('keeper', 'harbour lights');
  await sees(page, '[role=dialog][aria-label=Directories]', 'As keeper.');
  await keys('Escape');
  await page.click('input[placeholder^="2 m"]', { count: 3 });
  await page.keyboard.type('business');
  await until('licensed services', async () => {
    const rows = await rowsOf();
    return (
      rows.length > 0 && rows.every((row) => /(Norrast Ferries|Ullsmere Water|Brannoch Quarries)/.test(row))
    );
  });
  // Placed they only listen.
  await choose(page, 'Band', 'All');
});

test('a route of three places in two days becomes two banks, in the order of travel', async () => {
  const page = at.page();
  const { body } = await at.world().api<{ plan: { id: string } }>('/api/plans', 'POST', {
    name: 'To Hestin',
    modelId: 'gannet-m8',
    owner: { callSign: 'Q7ABC' },
  });
  const { id } = body.plan;
  await page.goto(`${at.world().url}/find?plan=${id}`);
  await page.waitForSelector('canvas');
  await press(page, 'Along a route');
  await page.type('input[placeholder*="Garrowick"]', 'Keterby > Garrowick, Perrin Cross');
  const [, days] = await page.$$('form[aria-label="Search for stations"] input[inputmode]');
  await days!.click({ count: 3 });
  await days!.type('2');
  await keys('Enter');
  await sees(page, '[aria-label=Stations] [role=status]', /along 180\.\d km, 2 days of 90\.\d km/);
  expect(
    await page.$eval('input[placeholder*="Garrowick"]', (field) => (field as HTMLInputElement).value),
  ).toBe('Ketterby > Garrowick > Perrin Cross');
  await press(page, 'Choose…');
  await page.waitForSelector('[aria-label="Choose many"] input');
  await page.click('[aria-label="Choose many"] input', { count: 3 });
  await page.keyboard.type('60');
  await press(page, 'Choose 60');
  await press(page, 'Place 60 channels');
  await sees(page, 'aside [role=status]', /Place 60 channels, 2 days/);
  const plan = await channelsOfPlan(at.world(), id);
  expect(plan.channels).toHaveLength(60);
  expect(plan.zones.map(({ name }) => name)).toEqual(['Day 1', 'Day 2']);
  const members = plan.zones.flatMap((zone) => zone.members);
  expect(new Set(members).size).toBe(60);
  // Stations near where the first day ends are wanted on both.
  expect(members.length).toBeGreaterThan(60);
  expect(await textOf(page, 'main [role=alert]')).toBe('');
});
