import { PLAN, kept, press, sees, textOf, type, until, worldAndBrowser } from './harness';

/** What goes wrong, and that nothing is lost. */

type Problem = { title: string; detail: string; status: number; type: string };

// A directory and a radio that say nothing are given up while the test waits.
const at = worldAndBrowser({
  env: { VERIDON_DIRECTORY_PATIENCE_MS: '10000', VERIDON_LINK_QUIET_MS: '2000' },
});
const { world, page } = at;

const { read: plan } = at;
const rename = (id: string, name: string) => ({ name: 'change', changes: [{ id, set: { name } }] });
const post = (edit: object, base: number) =>
  world().api<Problem & { revision: number; label: string }>(`/api/plans/${PLAN}/edits`, 'POST', {
    base,
    edit,
  });

describe('a cable that slips at 60% of a write', () => {
  const jobs = async () =>
    (
      await world().api<{
        jobs: { id: string; state: string; message: string; result: { bytesIn?: number } }[];
      }>('/api/jobs')
    ).body.jobs;
  const copies = async () =>
    (
      await world().api<{ copies: { id: string; reason: string; sha256: string }[] }>(
        `/api/radios/${await world().radioId('LK204417')}/copies`,
      )
    ).body.copies;

  test('the application says what state the radio is in', async () => {
    await world().atBench('/bench/radios/tern-1', { plugged: true });
    await page().goto(`${world().url}/bench?plan=${PLAN}`);
    await press(page(), 'Read');
    await sees(page(), '[aria-label="Sealed copies"]', 'As it came');
    // 60% of the 8,192 bytes: the frames before it are 24 blocks of 263 bytes at the most, so 4,915 lies in the 19th
    await world().atBench('/bench/radios/tern-1/faults', { kind: 'pull', atByte: 4915 + 19 * 7 + 30 });
    await press(page(), 'Write to LK204417');
    await press(page(), 'Write it');
    const said = await sees(page(), '[aria-label="Under way"]', 'Broken off.');
    expect(said).toContain('LK204417 is half written');
    expect(said).toContain('hears and sends nothing until it is written whole');
    expect((await jobs())[0]!.result.bytesIn).toBeGreaterThanOrEqual(8192 * 0.45);
    expect((await jobs())[0]!.result.bytesIn).toBeLessThanOrEqual(8192 * 0.62);
    await sees(page(), '[aria-label=Radios]', 'half written');
    await sees(page(), '[aria-label=Radios]', 'away');
    const look = (await world().atBench('/bench/radios')) as {
      radios: { face: { large: string } }[];
    };
    expect(look.radios[0]!.face.large).toBe('NO DATA');
  });

  test('restoring the sealed copy brings it back, byte for byte but for its own counters', async () => {
    const first = (await copies()).find((copy) => copy.reason === 'first read')!;
    await world().atBench('/bench/radios/tern-1', { plugged: true });
    await sees(page(), '[aria-label=Radios]', 'plugged in');
    await press(page(), 'Restore');
    await press(page(), 'Restore it');
    await sees(
      page(),
      '[aria-label="Under way"]',
      'as it was when the sealed copy was taken: all 8,176 bytes agree',
    );
    const bytes = async (id: string) =>
      new Uint8Array(await (await fetch(`${world().url}/api/copies/${id}/image`)).arrayBuffer());
    const [was, now] = [await bytes(first.id), await bytes((await copies())[0]!.id)];
    const differ = [...was.keys()].filter((at) => was[at] !== now[at]);
    expect(differ.every((at) => at >= 0x70 && at < 0x80)).toBe(true);
    const look = (await world().atBench('/bench/radios')) as {
      radios: { face: { large: string } }[];
    };
    expect(look.radios[0]!.face.large).toBe('CALL2');
  });

  test('one flipped bit on the line is sent again and does no harm', async () => {
    await world().atBench('/bench/radios/tern-1/faults', { kind: 'flip', atByte: 3000 });
    const { revision } = await plan();
    const started = await world().api<{ id: string }>('/api/jobs', 'POST', {
      kind: 'write',
      radioId: await world().radioId('LK204417'),
      planId: PLAN,
      planRevision: revision,
    });
    expect(started.status).toBe(202);
    const job = await until('the write', async () =>
      (await jobs()).find((one) => one.id === started.body.id && one.state !== 'running'),
    );
    expect(job).toMatchObject({ state: 'done', message: expect.stringContaining('all 8,176 bytes') });
  });

  test.each([
    [{ kind: 'refuse' }, /refuses to be written.*as it was/],
    [{ kind: 'silent' }, /does not answer|stopped answering/],
    [{ kind: 'wrong model', ident: 'TERN-P3 ' }, /TERN-P3/],
  ])('a radio with the fault %j is left as it was', async (fault, said) => {
    await world().api('/api/radios');
    await world().atBench('/bench/radios/tern-1/faults', fault);
    const { revision } = await plan();
    const started = await world().api<{ id: string } & Problem>('/api/jobs', 'POST', {
      kind: 'write',
      radioId: await world().radioId('LK204417'),
      planId: PLAN,
      planRevision: revision,
    });
    const message =
      started.status === 202
        ? (
            await until('the end', async () =>
              (await jobs()).find((one) => one.id === started.body.id && one.state !== 'running'),
            )
          ).message
        : started.body.detail;
    await world().atBench('/bench/radios/tern-1/faults', { kind: 'none' });
    expect(message).toMatch(said);
  });

  test('a write for another revision, another unit’s copy and a radio that is away are refused', async () => {
    const { revision } = await plan();
    const ask = async (body: object) => (await world().api<Problem>('/api/jobs', 'POST', body)).body;
    expect(
      await ask({
        kind: 'write',
        radioId: await world().radioId('LK204417'),
        planId: PLAN,
        planRevision: revision + 1,
      }),
    ).toMatchObject({ status: 409, detail: expect.stringContaining('write again') });
    await world().atBench('/bench/radios/tern-2', { plugged: true });
    const other = await world().radioId('LK204533');
    await world().atBench('/bench/radios/tern-2', { plugged: false });
    expect(await ask({ kind: 'read', radioId: other })).toMatchObject({
      status: 409,
      detail: expect.stringContaining('Plug it in'),
    });
    await world().atBench('/bench/radios/tern-2', { plugged: true });
    expect(await ask({ kind: 'restore', radioId: other, copyId: (await copies())[0]!.id })).toMatchObject({
      status: 422,
      detail: expect.stringContaining('written to no other'),
    });
  });
});

describe('bad input', () => {
  test('an unreadable frequency posted, an unknown field, an id of another kind: refused, saying where', async () => {
    const { revision, plan: before } = await plan();
    const id = before.channels[0]!.id;
    const bad = async (set: object, one = id) =>
      (await post({ name: 'change', changes: [{ id: one, set }] }, revision)).body;
    expect(await bad({ rx: '145.6' })).toMatchObject({
      status: 400,
      detail: expect.stringContaining('body.edit.changes.0.set.rx'),
    });
    expect(await bad({ rx: 145_600_001 })).toMatchObject({
      status: 400,
      detail: expect.stringContaining('tens of Hz'),
    });
    expect(await bad({ frequency: 1 })).toMatchObject({ status: 400 });
    expect(await bad({ tx: null }, 'pl_x')).toMatchObject({ status: 400 });
    expect((await world().api<Problem>(`/api/plans/${PLAN}/edits`, 'POST', '{"base":1,')).body).toMatchObject(
      {
        status: 400,
        detail: expect.stringContaining('JSON'),
      },
    );
    expect(
      (await world().api<Problem>(`/api/plans/${PLAN}/edits`, 'POST', ' '.repeat(4_100_000))).body,
    ).toMatchObject({ status: 413 });
    expect((await plan()).plan).toEqual(before);
  });

  test('an edit on an old revision is run on the newest, or refused where the same was changed', async () => {
    const { revision, plan: before } = await plan();
    const [a, b] = before.channels;
    expect((await post(rename(a!.id, 'Mine'), revision)).status).toBe(200);
    const rebased = await post(rename(b!.id, 'Yours'), revision);
    expect(rebased).toMatchObject({
      status: 200,
      body: {
        revision: revision + 2,
        // what brings its sender along: the other's edit, and then its own
        edits: [rename(a!.id, 'Mine'), rename(b!.id, 'Yours')],
      },
    });
    expect((await post(rename(a!.id, 'Theirs'), revision)).body).toMatchObject({
      status: 409,
      detail: expect.stringContaining('changed meanwhile (name)'),
    });
    expect((await post(rename(a!.id, 'Ahead'), revision + 50)).body).toMatchObject({ status: 409 });
    expect((await plan()).plan.channels[0]!.name).toBe('Mine');
  });

  test('an unknown model, plan and job are said to be unknown', async () => {
    const made = await world().api<Problem>('/api/plans', 'POST', {
      name: 'X',
      modelId: 'no-such',
      owner: {},
    });
    expect(made.body).toMatchObject({ status: 422, detail: expect.stringContaining('no-such') });
    const { revision } = await plan();
    expect((await post({ name: 'describe', set: { modelId: 'no-such' } }, revision)).body).toMatchObject({
      status: 422,
    });
    expect((await world().api<Problem>(`/api/plans/${PLAN}/fit?model=no-such`)).body).toMatchObject({
      status: 422,
    });
    expect((await world().api<Problem>('/api/plans/pl_nothing')).body).toMatchObject({ status: 404 });
    expect((await world().api<Problem>('/api/jobs/jb_nothing')).body).toMatchObject({ status: 404 });
  });

  test('requests from elsewhere are refused', async () => {
    const foreign = await fetch(`${world().url}/api/plans/${PLAN}/undo`, {
      method: 'POST',
      headers: { Origin: 'http://elsewhere.example' },
    });
    expect(foreign.status).toBe(403);
    const { request } = await import('node:http');
    const status = await new Promise((resolve) =>
      request(`${world().url}/api/plans`, { headers: { Host: 'elsewhere.example' } }, (answer) =>
        resolve(answer.statusCode),
      ).end(),
    );
    expect(status).toBe(403);
    const policy = (await fetch(world().url)).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).not.toContain('unsafe-eval');
  });
});

describe('a directory in trouble', () => {
  const search = async () =>
    (
      await world().api<Problem & { candidates: unknown[]; skipped: string[] }>(
        '/api/directories/relay-register/entries?lat=52.06&lon=-29.84&radius=40',
      )
    ).body;
  const order = (fault: object) => world().atBench('/register/faults', fault);
  afterEach(() => order({ kind: 'none' }));
  test.each([
    [{ kind: 'slow', ms: 120_000 }, 504, /within 10 seconds/],
    [{ kind: 'rubbish' }, 502, /not a list of entries/],
    [{ kind: 'cut off' }, 502, /broke before the answer was whole/],
    [{ kind: 'refuse' }, 502, /broke before/],
  ])('%j', async (fault, status, detail) => {
    await order(fault);
    expect(await search()).toMatchObject({ status, detail: expect.stringMatching(detail) });
  });
  test('bad rows are left out and named, the others are there', async () => {
    const whole = await search();
    await order({ kind: 'bad rows' });
    const part = await search();
    expect(part.skipped.length).toBeGreaterThanOrEqual(2);
    expect(part.candidates.length).toBe(whole.candidates.length - part.skipped.length);
  });
  test('the screen says so, and finds again when it is well', async () => {
    await page().goto(`${world().url}/find?plan=${PLAN}`);
    await page().waitForSelector('datalist option');
    await press(page(), 'Search');
    await page().waitForSelector('tbody tr');
    const count = () => page().$eval('table', (table) => table.getAttribute('aria-rowcount'));
    const found = await count();
    await order({ kind: 'rubbish' });
    const askAgain = async () => {
      await press(page(), 'Directories');
      await press(page(), 'Ask them again');
      await page().keyboard.press('Escape');
    };
    await askAgain();
    await sees(
      page(),
      'main [role=alert]',
      /Relay Register: .*not a list of entries.*What is known of it is shown/s,
    );
    // what was answered before is found all the same
    expect(await count()).toBe(found);
    await order({ kind: 'none' });
    await askAgain();
    await until('the trouble to be over', async () => (await textOf(page(), 'main [role=alert]')) === '');
  });
});

test('kill -9 right after an answered edit: the edit is there after a restart', async () => {
  const before = await plan();
  for (let round = 1; round <= 2; round++) {
    const { status } = await post(
      rename(before.plan.channels[4]!.id, `Round ${round}`),
      before.revision + round - 1,
    );
    const killed = world().kill('SIGKILL');
    expect(status).toBe(200);
    await killed;
    await world().start();
    const after = await plan();
    expect(after.revision).toBe(before.revision + round);
    expect(after.plan.channels[4]!.name).toBe(`Round ${round}`);
  }
});

test('while the server is away typing goes on; what was typed is kept when it is back', async () => {
  await page().goto(`${world().url}/plans/${PLAN}`);
  await kept(page());
  await world().kill('SIGKILL');
  await type(page(), 5, 'name', 'Typed alone');
  await sees(page(), 'header [role=status]', 'Not kept yet');
  await world().start();
  await kept(page());
  expect((await plan()).plan.channels.find((channel) => channel.slot === 5)!.name).toBe('Typed alone');
});
