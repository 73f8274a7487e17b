import { spawnSync } from 'node:child_process';
import { renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PLAN, press, sees, textOf, until, worldAndBrowser } from './harness';

/** Radios on the Bench: one with two modules over a line that drops, read, written, changed on its own keys, broken off, gone on with. */

const at = worldAndBrowser();
const { world, page } = at;
const SERIAL = 'OR110206';
const hand = (body: object) => world().atBench('/bench/radios/curlew-1', body);
const fault = (body: object) => world().atBench('/bench/radios/curlew-1/faults', body);
let planId: string;
/** The page of the plan that was made of what the radio held. */
const toBench = () => page().goto(`${world().url}/bench?plan=${planId}`);
const underWay = (what: RegExp | string) => sees(page(), '[aria-label="Under way"]', what);

/** Gives the last channel another name in the plan. */
async function rename(name: string): Promise<void> {
  const { body } = await world().api<{ plan: { channels: { id: string }[] }; revision: number }>(
    `/api/plans/${planId}`,
  );
  const edit = { name: 'change', changes: [{ id: body.plan.channels.at(-1)!.id, set: { name } }] };
  const { status } = await world().api(`/api/plans/${planId}/edits`, 'POST', { base: body.revision, edit });
  expect(status).toBe(200);
}

test('a radio that has never been read is not written: its first read is sealed, and a plan is made of it', async () => {
  await hand({ plugged: true });
  await page().goto(`${world().url}/bench`);
  await sees(page(), 'h2', 'Oriel Curlew X1');
  await sees(page(), '[aria-label="Write a plan"]', 'Read it first');
  await press(page(), 'Read');
  await underWay(`${SERIAL} was read`);
  await sees(page(), '[aria-label="What it holds"]', '4 channels');
  await press(page(), 'Make a plan of it');
  await page().waitForFunction(() => /\/plans\/pl_/.test(location.pathname));
  planId = /pl_[a-z0-9]+/.exec(page().url())![0];
});

test('it is written, module by module, and read back', async () => {
  await toBench();
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  expect(await underWay(`was written to ${SERIAL}`)).toContain(
    'all 24,560 bytes read back as they were sent',
  );
});

test('changed by hand and in the plan, it is merged three ways: nothing is silent, nothing is taken by itself', async () => {
  await hand({ key: { slot: 1, name: 'Harbour', rx: 145_350_000 } });
  await hand({ key: { slot: 2, clear: true } });
  await hand({ key: { slot: 3, name: 'Nets' } });
  const { body } = await world().api<{
    plan: { channels: { id: string; slot: number }[] };
    revision: number;
  }>(`/api/plans/${planId}`);
  const third = body.plan.channels.find(({ slot }) => slot === 3)!;
  await world().api(`/api/plans/${planId}/edits`, 'POST', {
    base: body.revision,
    edit: { name: 'change', changes: [{ id: third.id, set: { name: 'Sunday net' } }] },
  });
  await toBench();
  // Agreed to by what was known before: the radio says otherwise, and nothing is written.
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  await underWay('holds something else than you looked at');
  await underWay('Nothing was written');
  const said = await sees(page(), '[aria-label="Done on its keys"]', 'Harbour');
  expect(said).toContain('nothing there any more');
  expect(said).toContain('Nets · the plan meanwhile: Sunday net');
  await press(page(), 'Take all into the plan');
  await until('what was taken to be gone from the list', async () => {
    const left = await textOf(page(), '[aria-label="Done on its keys"]');
    return !left.includes('Harbour') && left.includes('Nets');
  });
  const after = await world().api<{ plan: { channels: { slot: number; name: string; rx: number }[] } }>(
    `/api/plans/${planId}`,
  );
  expect(after.body.plan.channels.map(({ slot, name, rx }) => [slot, name, rx])).toEqual([
    [1, 'Harbour', 145_350_000],
    [3, 'Sunday net', 145_612_500],
    [4, 'Positions', 144_800_000],
  ]);
  // What is left is the plan's word: the write says it again, and is made.
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  await underWay(`was written to ${SERIAL}`);
});

test('a write that is pulled goes on from where it was, on another socket', async () => {
  await rename('Field day');
  await toBench();
  await fault({ kind: 'pull', atByte: 20_000 });
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  await underWay(`${SERIAL} is half written`);
  await hand({ plugged: true, cable: 2 });
  await sees(page(), 'main', 'on bench/curlew-1-2');
  await press(page(), 'Go on with the write');
  expect(await underWay('The write went on at byte')).toContain('read back as they were sent');
  await until(
    'the radio to be whole',
    async () => !(await textOf(page(), '[aria-label=Radios]')).includes('half written'),
  );
});

test('another is restored instead', async () => {
  await fault({ kind: 'pull', atByte: 22_000 });
  await rename('Once more');
  await page().reload();
  await press(page(), `Write to ${SERIAL}`);
  await press(page(), 'Write it');
  await underWay(`${SERIAL} is half written`);
  await hand({ plugged: true });
  await sees(page(), '[aria-label=Radios]', 'plugged in');
  await press(page(), 'Restore');
  await press(page(), 'Restore it');
  await underWay('is as it was when the sealed copy was taken');
  // The copies say what they are of, and a restore is no write.
  await sees(page(), '[aria-label="Sealed copies"]', /After a restore/);
  await sees(page(), '[aria-label="Sealed copies"]', /After a write of “.*”, revision \d+/);
  expect(await page().$('[aria-label="Done on its keys"]')).toBeNull();
});

test('from the radio’s side: its knob, its keys, its switch and its cable are handled on the table, and Veridon sees it', async () => {
  const pages = page();
  await pages.goto(world().bench);
  const card = 'section[aria-label="Tern P2, yellow tape"]';
  await sees(pages, card, 'CALL2');
  await pages.click(`${card} [aria-label="Turn up"]`);
  await sees(pages, `${card} [aria-label=Display]`, 'M-001');
  // Stored on its keys, it is what it shows.
  await pages.click(`${card} summary`);
  await pages.type(`${card} form label:nth-of-type(2) input`, 'HERE');
  await pages.type(`${card} form label:nth-of-type(3) input`, '145.225');
  await pages.evaluate((one) => {
    [...document.querySelectorAll<HTMLButtonElement>(`${one} form button`)]
      .find(({ textContent }) => textContent === 'Store')!
      .click();
  }, card);
  await sees(pages, `${card} [aria-label=Display]`, 'HERE');
  await pages.evaluate((one) => {
    [...document.querySelectorAll<HTMLButtonElement>(`${one} button`)]
      .find(({ textContent }) => textContent === 'Plug it in')!
      .click();
  }, card);
  await sees(pages, '[aria-label="Sockets of the computer"]', 'Tern P2, yellow tape');
  await pages.goto(`${world().url}/bench`);
  await sees(pages, '[aria-label=Radios]', 'LK204417');
  await sees(pages, '[aria-label="Not plugged in"]', 'LK204533');
});

test('everything is backed up by hand on the page Data, which says what is kept and that it is sound', async () => {
  await page().goto(`${world().url}/data`);
  // After some minutes one has been made by itself.
  await sees(page(), '[aria-label=Backups]', /None yet|by itself/);
  await sees(page(), 'main', 'Every sealed copy is, bit for bit, what was sealed');
  await press(page(), 'Back up now');
  await sees(page(), '[aria-label=Backups]', 'asked for');
});

test('a backup is restored into an empty directory: plans and sealed copies are there as they were', async () => {
  /** The plans with their channels, once the list has counted them. */
  const plans = () =>
    until('the plans are counted', async () => {
      const { body } = await world().api<{
        plans: { name: string; channels: number; pending: boolean }[];
      }>('/api/plans');
      return (
        body.plans.every(({ pending }) => !pending) &&
        body.plans.map(({ name, channels }) => [name, channels] as const)
      );
    });
  const before = await plans();
  const seal = async () =>
    (
      await world().api<{ radios: { serial: string; copies: { sha256: string }[] }[] }>('/api/radios')
    ).body.radios.map(({ serial, copies }) => [serial, copies.map(({ sha256 }) => sha256)]);
  const sealed = await seal();
  expect(sealed.flatMap(([, copies]) => copies).length).toBeGreaterThan(0);
  const saved = await page().$eval(
    '[aria-label=Backups] a[download]',
    (link) => (link as HTMLAnchorElement).href,
  );
  const file = join(world().folder, 'everything.backup.gz');
  writeFileSync(file, Buffer.from(await (await fetch(saved)).arrayBuffer()));
  // The directory is lost; another takes its place, and the backup is put into it.
  const data = join(world().folder, 'data');
  await world().kill('SIGTERM');
  renameSync(data, join(world().folder, 'lost'));
  const { status, stderr } = spawnSync(process.execPath, ['scripts/restore.mjs', file], {
    env: { ...process.env, VERIDON_DATA_DIR: data },
    encoding: 'utf8',
  });
  expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
  await world().start();
  await page().goto(world().url);
  for (const [name] of before) await sees(page(), '[aria-label=Plans]', name);
  expect(await plans()).toEqual(before);
  expect(await seal()).toEqual(sealed);
  await page().goto(`${world().url}/data`);
  await sees(page(), 'main', 'Every sealed copy is, bit for bit, what was sealed');
});

test('one plan to ten radios at once, each with its own greeting; one fails and stops no other, and the report says so', async () => {
  const units = [
    'tern-1',
    'tern-2',
    'tern-3',
    'tern-4',
    'tern-5',
    'tern-6',
    'gannet-1',
    'gannet-2',
    'curlew-2',
  ];
  for (const unit of units) await world().atBench(`/bench/radios/${unit}`, { plugged: true, on: true });
  const { body } = await world().api<{ radios: { id: string; serial: string; port: string | null }[] }>(
    '/api/radios',
  );
  const here = body.radios.filter(({ port }) => port !== null);
  expect(here.length).toBe(10);
  for (const { id } of here)
    expect((await world().api('/api/jobs', 'POST', { kind: 'read', radioId: id })).status).toBe(202);
  await until('all of them to be read', async () => {
    const { jobs } = (await world().api<{ jobs: { state: string }[] }>('/api/jobs')).body;
    return jobs.every(({ state }) => state !== 'running');
  });
  await world().atBench('/bench/radios/gannet-2/faults', { kind: 'refuse' });
  await page().goto(`${world().url}/bench?plan=${planId}`);
  await press(page(), 'Write to several…');
  await sees(page(), '[aria-label="Write to several"]', 'LK204533');
  // Its own settings are asked for when the panel is there.
  await page().waitForSelector('[aria-label="Power-on text of LK204533"]');
  await page().type('[aria-label="Power-on text of LK204533"]', 'SHOP');
  // No radio is selected at first, and nothing is written before the question is answered.
  expect(await page().$$('[aria-label="Radios to write to"] [aria-checked=true]')).toHaveLength(0);
  await press(page(), 'Select all 10 radios');
  await press(page(), 'Write to 10 radios');
  const question = '[aria-label="Before writing to several"]';
  await sees(page(), question, /revision \d+, to 10 radios\?/);
  const each = await sees(page(), question, 'This plan is made for the Oriel Curlew X1.');
  expect(each).toMatch(/LK204533.*This plan is made for the Oriel Curlew X1/);
  expect((await world().api<{ jobs: { kind: string }[] }>('/api/jobs')).body.jobs[0]!.kind).toBe('read');
  await press(page(), 'Write to all radios');
  const said = await sees(page(), '[aria-label=Report]', /9 of 10 written and proved, 1 not\./);
  expect(said).toContain('1 not');
  await sees(page(), '[aria-label=Report]', 'The radio says no: it refuses to be written');
  const link = await page().$eval('[aria-label=Report] a', (one) => (one as HTMLAnchorElement).href);
  await page().goto(link);
  await sees(page(), 'main', 'Written to several radios');
  await sees(page(), '[aria-label=Report]', 'bytes read back as they were sent');
});

test('the ID of one unit is set on the Bench, refused where no radio may have it, and named before a write', async () => {
  await world().atBench('/bench/radios/kestrel-2', { plugged: true });
  const id = await until('the Kestrel on its port', async () => {
    const { radios } = (await world().api<{ radios: { serial: string; id: string }[] }>('/api/radios')).body;
    return radios.find(({ serial }) => serial === 'CV110091')?.id;
  });
  const read = await world().api<{ id: string }>('/api/jobs', 'POST', { kind: 'read', radioId: id });
  await until('it to be read', async () => {
    const { state } = (await world().api<{ state: string }>(`/api/jobs/${read.body.id}`)).body;
    return state === 'done';
  });
  // Who comes from a plan finds a radio of its model; that another one is not is said before the button.
  await page().goto(`${world().url}/bench?plan=${PLAN}`);
  await sees(page(), 'main h2', 'Tern P2');
  expect(await textOf(page(), '[aria-label="Warnings before writing"]')).not.toContain('made for');
  await page().click('[aria-label=Radios] ::-p-xpath(.//button[contains(., "CV110091")])');
  await sees(
    page(),
    '[aria-label="Warnings before writing"]',
    /This plan is made for the .*Tern P2\. Veridon fits it to this .*Kestrel C1/,
  );
  await page().click('::-p-xpath(//summary[contains(., "Values of this unit")])');
  await page().type('[aria-label="Own ID of CV110091"]', '99000000');
  await press(page(), 'Save values');
  await sees(page(), 'form[aria-label="Values of this unit"] [role=alert]', 'from 1 to 16,776,415');
  await page().click('[aria-label="Own ID of CV110091"]', { count: 3 });
  await page().keyboard.type('1160092');
  await press(page(), 'Save values');
  await sees(page(), '[aria-label="Earlier values"]', 'Own ID set to 1160092');
  await sees(page(), '[aria-label="Write a plan"]', /Own ID.*1160092, was unknown \(0x00000000\)/);
});

test('a sealed copy is held against another, of another unit of its model, and against a plan; what is not a unit’s own goes from one to the other', async () => {
  await page().goto(`${world().url}/bench?plan=${planId}`);
  const choose = async (serial: string) => {
    const radio = await page().waitForSelector(
      `[aria-label=Radios] ::-p-xpath(.//button[contains(., "${serial}")])`,
    );
    await radio!.click();
    await sees(page(), 'main', `Serial ${serial}`);
  };
  await choose('LK204611');
  await press(page(), 'Compare');
  await sees(page(), '[aria-label=Compare] [role=status]', /of 8,192 bytes differ|Not one byte differs/);
  await press(page(), 'Close');
  await page().click('[aria-label="Sealed copies"] [role=checkbox]');
  const theirs = await page().waitForSelector(
    `[aria-label="Sealed copies"] ::-p-xpath(.//li[contains(., "LK204417")]//button[text()="Restore"])`,
  );
  await theirs!.click();
  await sees(page(), '[aria-label="Sealed copies"]', 'Write it to LK204611? What is its own stays');
  await press(page(), 'Restore it');
  await underWay('what is its own is as it was');
});
