import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { channelsOfPlan } from './at-find';
import { choose, onPlanPage, press, sees, textOf, until, PLAN } from './harness';

/** From “I am here” or “I go there” to channels in their slots: by name, by map, along a route, from several directories. */

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

test('what is in the plan is said of the plan as it is, not of the one that was searched for before', async () => {
  const page = at.page();
  await open('&at=52.06,-29.84&name=Ketterby&km=40');
  await sees(page, 'main [role=status]', /\d+ in the plan already/);
  // Without leaving the application: what was answered before is still known to the page.
  await page.click(`a[href="/plans/${PLAN}"]`);
  await page.waitForSelector('[role=grid]');
  const { plan, revision } = await at.read();
  const ids = plan.channels.map(({ id }) => id);
  await at.world().api(`/api/plans/${PLAN}/edits`, 'POST', { base: revision, edit: { name: 'remove', ids } });
  await page.goBack();
  await sees(page, 'main [role=status]', /^\d+ stations(?!.*in the plan already)/);
  await at.undo();
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

test('a file dropped on the plan: its columns are put right, ten errors are said with their lines, the rest goes in', async () => {
  const page = at.page();
  const { body } = await at.world().api<{ plan: { id: string } }>('/api/plans', 'POST', {
    name: 'From a friend',
    modelId: 'tern-p2',
    owner: { callSign: 'Q7ABC' },
  });
  await page.goto(`${at.world().url}/plans/${body.plan.id}`);
  await page.waitForSelector('[role=grid]');
  const rows = Array.from({ length: 60 }, (_, n) =>
    n % 6 === 5
      ? `Bad ${n};one four five;;`
      : `Station ${n};${(144_600 + n * 12.5) / 1000};what;88,5`.replace('.', ','),
  );
  const text = ['Naam;Receive;Odd one;Tone', ...rows].join('\r\n');
  await page.evaluate((content) => {
    const data = new DataTransfer();
    data.items.add(new File([content], 'friend.csv'));
    document
      .querySelector('main')!
      .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
  }, text);
  const panel = '[aria-label="The file friend.csv"]';
  await sees(page, panel, /friend.csv 60 rows, UTF-8, with headings/);
  await sees(page, panel, /50 channels, 10 rows not taken/);
  await sees(page, '[aria-label="Rows that are not understood"]', /Line 7.*one four five/s);
  // The first column is called in another tongue: it is put right by choosing.
  await choose(page, 'What Naam is', 'name');
  await sees(page, '[aria-label="What comes of it"]', /Station 0/);
  await press(page, 'Put in 50 channels');
  await sees(page, '[aria-label="Not taken"]', /10 rows not taken/);
  await until('fifty channels', async () => {
    const { channels } = await channelsOfPlan(at.world(), body.plan.id);
    return channels.length === 50 && channels[0]!.name === 'Station 0';
  });
  // The next file of that kind is read so at once.
  await page.reload();
  await page.waitForSelector('[role=grid]');
  await page.evaluate((content) => {
    const data = new DataTransfer();
    data.items.add(new File([content], 'again.csv'));
    document
      .querySelector('main')!
      .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
  }, text);
  await sees(page, '[aria-label="What comes of it"]', /Station 0/);
  // A picture under another name is refused by what it is.
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array([0x89, 0x50, 0x4e, 0x47, 13, 10])], 'list.csv'));
    document
      .querySelector('main')!
      .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
  });
  await sees(page, '[aria-label="The file list.csv"] [role=alert]', 'This is a picture (PNG)');
});

test('a log says what was heard; what never was is left over in one step, and comes back', async () => {
  const page = at.page();
  const { body } = await at.world().api<{ plan: { id: string; revision: number } }>('/api/plans', 'POST', {
    name: 'After a year',
    modelId: 'tern-p2',
    owner: { callSign: 'Q7ABC' },
  });
  const { id } = body.plan;
  const list = Array.from({ length: 12 }, (_, n) =>
    `Station ${n};${((145_600 + n * 12.5) / 1000).toFixed(4)}`.replace('.', ','),
  );
  const file = Buffer.from(['Name;Receive', ...list].join('\n')).toString('base64');
  await at.world().api('/api/import', 'POST', { plan: id, base64: file });
  await page.goto(`${at.world().url}/plans/${id}`);
  await page.waitForSelector('[role=grid] [role=rowgroup] [role=row]');
  await keys('Control+k');
  await page.waitForSelector('[cmdk-input]');
  await page.keyboard.type('what is never heard');
  await until('the command', async () =>
    (await textOf(page, '[cmdk-item][aria-selected=true]')).includes('never heard'),
  );
  await keys('Enter');
  const panel = '[aria-label="What is heard"]';
  await sees(page, panel, /Leave 12 over/);
  const folder = mkdtempSync(join(tmpdir(), 'veridon-log-'));
  const log = join(folder, 'log.csv');
  const day = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  writeFileSync(
    log,
    [
      'time,frequency',
      `${day} 10:00,145.600`,
      `${day} 10:05,145.625`,
      `${day} 11:00,145.600`,
      'noon,145.600',
    ].join('\n'),
  );
  const [chooser] = await Promise.all([page.waitForFileChooser(), press(page, 'Take a log…')]);
  await chooser.accept([log]);
  await sees(page, panel, /log.csv: 3 times in UTC, 1 row not taken.*Line 5/s);
  await press(page, 'Keep them');
  await sees(page, panel, /Leave 10 over/);
  await press(page, 'By week');
  await sees(page, panel, /2 of 12 channels were heard.*times in all, \d+ in the last 12 weeks/s);
  await press(page, 'Never heard');
  await press(page, 'Leave 10 over');
  await until('ten of them over', async () => (await channelsOfPlan(at.world(), id)).leftOver.length === 10);
  expect((await channelsOfPlan(at.world(), id)).channels.map(({ name }) => name)).toEqual([
    'Station 0',
    'Station 2',
  ]);
  await page.focus('[role=grid]');
  await keys('Control+z');
  await until('all of them back', async () => (await channelsOfPlan(at.world(), id)).channels.length === 12);
  rmSync(folder, { recursive: true });
});

test('a track of a file is a route', async () => {
  const page = at.page();
  await open();
  await press(page, 'Along a route');
  const points = [
    [52.06, -29.84],
    [52.0, -29.9],
    [51.9, -29.95],
    [51.8, -30.1],
  ].map(([lat, lon]) => `<trkpt lat="${lat}" lon="${lon}"/>`);
  const folder = mkdtempSync(join(tmpdir(), 'veridon-track-'));
  const file = join(folder, 'walk.gpx');
  writeFileSync(file, `<gpx><trk><trkseg>${points.join('')}</trkseg></trk></gpx>`);
  const [chooser] = await Promise.all([page.waitForFileChooser(), press(page, 'A route from a file')]);
  await chooser.accept([file]);
  // 7.9 + 11.6 + 15.2 km, by degrees of latitude and 0.61 of them along
  await sees(page, '[aria-label=Stations] [role=status]', /along 34\.\d km/);
  rmSync(folder, { recursive: true });
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
