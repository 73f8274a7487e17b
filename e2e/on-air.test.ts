import {
  cell,
  choose,
  findingsCome,
  findingsRead,
  kept,
  press,
  sees,
  type,
  until,
  onPlanPage,
} from './harness';

/** What goes on air: understood as it is typed, held against the tables of where one is, and against who is there already. */

const at = onPlanPage();
const { inSlot, keys } = at;
const tick = async (name: RegExp) => {
  const labels = await at.page().$$('label');
  for (const label of labels)
    if (name.test((await label.evaluate((element) => element.textContent)) ?? '')) return label.click();
  throw new Error(`There is nothing to tick called ${name}`);
};

test('what could mean two things is asked about with both; what people write is understood, and said where it is not plain', async () => {
  const page = at.page();
  await page.click(await cell(page, 3, 'rx'));
  await page.keyboard.type('145,650 kHz');
  await keys('Enter');
  await sees(page, 'body', '“145,650 kHz” could be 145.650 MHz or 0.14565 MHz');
  await keys('Control+a');
  await page.keyboard.type('１４５ ６５０');
  await keys('Enter');
  await kept(page);
  expect(await inSlot(3)).toMatchObject({ rx: 145_650_000, tx: 145_050_000 });
  await sees(page, 'footer', 'read as 145.650 MHz');
  await type(page, 3, 'access', '114');
  await sees(page, 'body', /114\.0 Hz or D114N or D114I/);
  await keys('Control+a');
  await page.keyboard.type('DCS 114N');
  await keys('Enter');
  await kept(page);
  expect((await inSlot(3))!.access).toMatchObject({ send: { kind: 'code', code: 114, inverted: false } });
  await type(page, 3, 'tx', 'RX only');
  await kept(page);
  expect((await inSlot(3))!.tx).toBeNull();
});

test('a finding names the table that decides; where there are two ways out, both are offered', async () => {
  const page = at.page();
  await type(page, 2, 'rx', '145.900');
  await kept(page);
  await sees(page, '[aria-label=Findings]', /Drowns satellites.*By Orrin Radio Society, band plan \(2026\)/s);
  await press(page, 'It works a satellite');
  await kept(page);
  expect(await inSlot(2)).toMatchObject({ tx: 145_900_000, satellite: true });
  await until('the finding to go', async () => {
    const text = await page.$eval('[aria-label=Findings]', (element) => element.textContent);
    return !text!.includes('Drowns');
  });
});

test('a region has a common table, and what some countries have beyond it is ticked by its footnote', async () => {
  const page = at.page();
  // its shift of +1.6 goes along: it sends on 445.700
  await type(page, 6, 'rx', '444.100 MHz');
  await kept(page);
  await page.click('header ::-p-text(grade Full)');
  await choose(page, 'Rules of', 'ITU region 2');
  await kept(page);
  await sees(page, '[role=dialog]', 'ITU Radio Regulations, Article 5 (2020)');
  const outside = async () => (await findingsRead(page)).includes('445.700 is in no band');
  await until('the finding', outside);
  // Two stretches of one name are two, and none stays behind when the region is another one again.
  const stretches = () =>
    page.$$eval('[aria-label="Bands of this plan"] > *', (all) => all.map((one) => one.textContent));
  const others = async () => (await stretches()).filter((text) => text!.startsWith('Other')).length;
  await until('two stretches of other services', async () => (await others()) === 2);
  await tick(/420 to 430 and 440 to 450 MHz/);
  await kept(page);
  await until('the finding to go', async () => !(await outside()));
  await keys('Escape');
  await findingsCome(page, /caution/);
  await press(page, 'Undo');
  await press(page, 'Undo');
  await kept(page);
  await until('the stretches of before', async () => {
    const now = await stretches();
    return new Set(now).size === now.length && (await others()) < 2;
  });
});

test('repeaters that the register knows nearby are seen, though the plan does not hold them', async () => {
  const { world } = at;
  const found = await world().api<{ candidates: { entry: Record<string, number | string | boolean> }[] }>(
    '/api/directories/relay-register/entries?lat=52.06&lon=-29.84&radius=40',
  );
  const { entry } = found.body.candidates.find(
    (one) =>
      one.entry['input'] !== null &&
      one.entry['service'] === 'amateur' &&
      one.entry['onAir'] &&
      Number(one.entry['output']) < 147e6,
  )!;
  const made = await world().api<{ plan: { id: string } }>('/api/plans', 'POST', {
    name: 'Simplex',
    modelId: 'tern-p2',
  });
  const { id } = made.body.plan;
  const channel = {
    id: 'ch_simplexthere',
    name: 'Simplex',
    fitted: {},
    rx: entry['output'],
    tx: entry['output'],
    txFixed: false,
    access: { kind: 'analogue', send: null, expect: null },
    mode: 'FM',
    power: 1000,
    scan: true,
    alwaysOn: false,
    note: '',
    source: { directory: 'own', entry: '1', service: 'amateur', lat: entry['lat'], lon: entry['lon'] },
  };
  await world().api(`/api/plans/${id}/edits`, 'POST', {
    base: 1,
    edit: {
      name: 'place',
      channels: [channel],
      placement: 'next-free',
      at: 0,
      range: { first: 0, count: 150 },
    },
  });
  const checked = await world().api<{ findings: { rule: string; text: string }[] }>(`/api/plans/${id}/check`);
  expect(checked.body.findings.find(({ rule }) => rule === 'over-repeater')?.text).toMatch(/^Talks over “/);
  // and on the screen, when the register's answer has come
  await at.page().goto(`${world().url}/plans/${id}`);
  await sees(at.page(), '[aria-label=Findings]', /Talks over “/);
});
