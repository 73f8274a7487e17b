import { channelsOfPlan, chooseFirst, newPlan as makePlan } from './at-find';
import { choose, onPlanPage, PLAN, press, sees, textOf, until } from './harness';

/** A new radio is filled from nothing, and what does not fit is said and kept. */

const at = onPlanPage();
const { keys } = at;

const newPlan = (name: string) => makePlan(at.world(), name);
const open = async (id: string) => {
  await at.page().goto(`${at.world().url}/find?plan=${id}&at=52.06,-29.84&name=Ketterby&km=80`);
  await at.page().waitForSelector('tbody tr[data-row]');
};
const fill = async (label: string, text: string) => {
  await at.page().click(`[aria-label="${label}"]`, { count: 3 });
  await at.page().keyboard.type(text);
};

test('a new handheld from nothing: calling from 0, weather, thirty repeaters, services, licence-free until it is full', async () => {
  const page = at.page();
  const id = await newPlan('From nothing');
  await open(id);
  await press(page, 'Fill in blocks');
  const blocks = '[aria-label="Fill in blocks"]';
  // The Tern has no 6 m: what it cannot hold is said beside the set.
  await sees(page, blocks, /150 slots free.*Calling 2 of 3.*Weather 7/s);
  await sees(page, blocks, /slots 0–1.*slots 10–16.*slots 20–49/s);
  await fill('How many of Services', '80');
  await fill('From which slot Services', '60');
  await page.click('[role=checkbox][aria-label="Marine, all"]');
  await sees(page, blocks, /find no slot and wait left over: Free/);
  const said = await textOf(page, `${blocks} [role=status]`);
  const over = Number(/(\d+) find no slot/.exec(said)![1]);
  await press(page, 'Fill in 150 channels');
  await sees(page, 'aside [role=status]', /Done: Place 150 channels, \d+ left over/);
  const plan = await channelsOfPlan(at.world(), id);
  expect([plan.channels.length, plan.leftOver.length]).toEqual([150, over]);
  const bySlot = new Map(plan.channels.map((channel) => [channel.slot, channel]));
  expect([bySlot.get(0)?.name, bySlot.get(1)?.name]).toEqual(['Calling 2 m', 'Calling 70 cm']);
  expect(bySlot.get(10)).toMatchObject({ name: 'Weather North', tx: null });
  // Nearest first: as the list of the search has them, which comes by distance.
  expect(bySlot.get(20)?.name).toBe('Ketterby Down');
  for (let slot = 20; slot < 50; slot++) expect(bySlot.get(slot)?.tx).not.toBeNull();
  // Services, weather and sea are listened to alone.
  for (const { name, slot, tx } of plan.channels)
    if (slot >= 60 && /^Marine/.test(name)) expect({ name, tx }).toEqual({ name, tx: null });
  await at.world().api(`/api/plans/${id}/undo`, 'POST');
  expect((await channelsOfPlan(at.world(), id)).channels).toEqual([]);
});

test('of a full radio the farthest make room, and wait beside the table', async () => {
  const page = at.page();
  const id = await newPlan('Full');
  await open(id);
  await press(page, 'Fill in blocks');
  await sees(page, '[aria-label="Fill in blocks"]', /150 slots free.*Weather 7/s);
  await fill('How many of Repeaters', '150');
  for (const set of ['Calling', 'Weather', 'Services', 'Licence-free'])
    await page.click(`[role=checkbox][aria-label="${set}"]`);
  await fill('From which slot Repeaters', '0');
  await press(page, 'Fill in 150 channels');
  await sees(page, 'aside [role=status]', 'Done: Place 150 channels');
  const before = await channelsOfPlan(at.world(), id);
  expect(before.channels).toHaveLength(150);
  await press(page, 'Fill in blocks');
  await sees(page, '[aria-label="Fill in blocks"]', /0 slots free/);
  await choose(page, 'To make room', 'the farthest go');
  await sees(page, '[aria-label="Fill in blocks"]', /wait left over instead/);
  const label = await page.$$eval('[aria-label="Fill in blocks"] button', (all) =>
    all.map(({ textContent }) => textContent ?? '').find((text) => text.startsWith('Fill in')),
  );
  await press(page, label!);
  // What was done before is said there still.
  await until('some left over', async () => (await channelsOfPlan(at.world(), id)).leftOver.length > 0);
  await sees(page, 'aside [role=status]', 'Done: Place');
  const after = await channelsOfPlan(at.world(), id);
  expect(after.channels).toHaveLength(150);
  const left = new Set(after.leftOver.map(({ name }) => name));
  // What came last was the farthest.
  expect(left.has(before.channels.at(-1)!.name)).toBe(true);
  expect(left.has(before.channels[0]!.name)).toBe(false);
});

test('what is chosen in one plan is kept as a starter set, fills another, and is taken away again', async () => {
  const page = at.page();
  await page.goto(`${at.world().url}/plans/${PLAN}`);
  await page.waitForSelector('#cell-5-tx');
  await chooseFirst(page, 3);
  await press(page, 'Take out');
  await page.waitForSelector('::-p-aria([name="Keep 3 channels as a starter set called"])');
  await (await page.$('::-p-aria([name="Keep 3 channels as a starter set called"])'))!.type('Our net');
  await press(page, 'Keep');
  await sees(page, '[role=dialog]', 'Kept as “Our net”');
  const id = await newPlan('With our net');
  await open(id);
  await press(page, 'Fill in blocks');
  await sees(page, '[aria-label="Fill in blocks"]', /Our net 3/);
  for (const set of ['Calling', 'Weather', 'Repeaters', 'Services', 'Licence-free', 'Our net'])
    await page.click(`[role=checkbox][aria-label="${set}"]`);
  await press(page, 'Fill in 3 channels');
  await until('three channels', async () => (await channelsOfPlan(at.world(), id)).channels.length === 3);
  await press(page, 'Fill in blocks');
  await press(page, 'Take the set Our net away');
  await until(
    'no set of that name',
    async () => !/Our net/.test(await textOf(page, '[aria-label="Fill in blocks"]')),
  );
});

test('what the directories say otherwise: a new tone, a move, off the air, new nearby; one left, one taken, then all', async () => {
  const page = at.page();
  const id = await newPlan('To be refreshed');
  const { api, atBench, url } = at.world();
  const near = '/api/stations?lat=52.06&lon=-29.84&radius=60&sources=relay-register&plan=';
  interface Found {
    unfit: string | null;
    entry: {
      ref: string;
      site: string;
      service: string;
      input: number | null;
      output: number;
      onAir: boolean;
      lat: number;
    };
  }
  const found = (await api<{ candidates: Found[] }>(near + id)).body.candidates.filter(
    ({ unfit, entry }) =>
      unfit === null &&
      entry.onAir &&
      entry.service === 'amateur' &&
      entry.input !== null &&
      entry.input !== entry.output,
  );
  await page.goto(`${url}/find?plan=${id}&at=52.06,-29.84&name=Ketterby&km=60`);
  await page.waitForSelector('tbody tr[data-row]');
  await press(page, 'Fill in blocks');
  await sees(page, '[aria-label="Fill in blocks"]', /150 slots free.*Weather 7/s);
  for (const set of ['Calling', 'Weather', 'Services', 'Licence-free'])
    await page.click(`[role=checkbox][aria-label="${set}"]`);
  await fill('How many of Repeaters', '12');
  await fill('From which slot Repeaters', '0');
  await press(page, 'Fill in 12 channels');
  await sees(page, 'aside [role=status]', 'Done: Place 12 channels');
  const before = await channelsOfPlan(at.world(), id);
  const refOf = (n: number) =>
    found.find(
      ({ entry }) => entry.site === before.channels[n]!.name && entry.output === before.channels[n]!.rx,
    )!.entry;
  const [first, second, third] = [refOf(0), refOf(1), refOf(2)];
  await atBench('/register/changes', {
    put: [
      { ref: first.ref, access: '94.8' },
      { ref: second.ref, lat: second.lat + 0.2 },
      { ref: third.ref, on_air: false },
      {
        ...{ ref: 'RR-9001', call: 'Q7NEW', site: 'Brand New Hill', island: 'Ullsmere', service: 'amateur' },
        ...{
          output_mhz: '145.7875',
          input_mhz: '145.1875',
          access: '67.0',
          mode: 'FM',
          lat: 52.1,
          lon: -29.84,
        },
        ...{ height_m: 300, on_air: true, constant: false },
      },
    ],
  });
  await page.goto(`${url}/plans/${id}#news`);
  const panel = '[aria-label="What has changed"]';
  await sees(page, panel, /4 things are not as they say/);
  await sees(page, panel, /Said otherwise now 1.*→ 94\.8/s);
  await sees(page, panel, /Moved 1.*stands 22 km N/s);
  await sees(page, panel, /Off the air 1.*New nearby 1.*Brand New Hill/s);
  await press(page, `Leave ${third.site} as it is`);
  await sees(page, panel, /3 things/);
  await press(page, `Take over: ${first.site}`);
  await sees(page, panel, /2 things/);
  await press(page, 'Take all 2');
  await sees(page, panel, 'Nothing: all is as they say.');
  await until('the news in the plan', async () => {
    const { channels } = await channelsOfPlan(at.world(), id);
    return channels.some(({ name }) => name === 'Brand New Hill') && channels.length === 13;
  });
  // Asked again there is nothing but what was left, until that is wanted again.
  await page.goto(url);
  await page.goto(`${url}/plans/${id}#news`);
  await sees(page, panel, /Nothing: all is as they say.*One was left before/s);
  await press(page, 'Show them again');
  await sees(page, panel, /One thing is not as they say.*Off the air 1/s);
  await press(page, `Leave over: ${third.site}`);
  await until('twelve channels', async () => (await channelsOfPlan(at.world(), id)).channels.length === 12);
});

test('a new plan is made for a radio under another of its names; an empty one says what to do', async () => {
  const page = at.page();
  await page.goto(at.world().url);
  await press(page, 'New plan');
  await press(page, 'Make the plan');
  await sees(page, 'main [role=alert]', 'Give the plan a name');
  await page.keyboard.press('Tab');
  await page.focus('form input');
  await page.keyboard.type('Beach day');
  await choose(page, 'Radio', 'Sandhoven S22');
  await press(page, 'Make the plan');
  await sees(page, 'h1', 'Beach day');
  await sees(page, 'header', 'Larkmoor Tern P2');
  await sees(page, '[role=grid]', 'New channel');
  expect(await page.$eval('[role=grid]', (grid) => grid.getAttribute('aria-rowcount'))).toBe('2');
  // Nobody has said whose licence holds: Check says that first, as soon as something would be sent.
  await sees(page, 'header', 'grade not stated');
  await page.focus('[role=grid]');
  await keys('Control+End', 'Home', 'ArrowRight', 'ArrowRight');
  await page.keyboard.type('145.5');
  await keys('Enter');
  await sees(page, '[aria-label="About the plan as a whole"]', 'Your licence grade is not stated');
  await press(page, 'Entry');
  await sees(page, 'header', 'grade Entry');
  await until(
    'nothing more of that',
    async () => (await page.$('[aria-label="About the plan as a whole"]')) === null,
  );
});
