import { cell, findingsCome, PLAN, kept, press, sees, textOf, type, until, worldAndBrowser } from './harness';

/** From an empty folder to a written radio, as a new user goes it. */

const at = worldAndBrowser({ speed: 12 });
const { world, page } = at;

const { read, channels, inSlot } = at;

test('the demo’s plan is there', async () => {
  await page().goto(world().url);
  await sees(page(), 'main', 'Ketterby weekend');
  await page().click('a[href*="ketterbyweekend"]');
  await sees(page(), 'h1', 'Ketterby weekend');
  await sees(page(), '[role=grid]', 'Ullsmere Hill');
  expect(await page().$eval('[role=grid]', (grid) => grid.getAttribute('aria-rowcount'))).toBe('22'); // 20 channels, headings, the empty row
});

test('twelve stations around Ketterby are found, chosen and placed, the slots seen beforehand', async () => {
  await press(page(), 'Find stations');
  await sees(page(), 'h1', 'Find stations');
  await sees(page(), 'main', 'held against the Larkmoor Tern P2');
  await press(page(), 'Search');
  await page().waitForSelector('tbody tr[data-row]');
  const rows = await page().$$eval('tbody tr[data-row]', (all) =>
    all.map((row) => [...row.querySelectorAll('td')].map((td) => td.textContent ?? '')),
  );
  const distances = rows.map((cells) => Number.parseFloat(cells[1]!));
  expect(distances.length).toBeGreaterThanOrEqual(12);
  expect(distances).toEqual([...distances].sort((a, b) => a - b));
  expect(distances.at(-1)).toBeLessThanOrEqual(40);
  expect(new Set(rows.map((cells) => cells[7]))).toEqual(new Set(['FM', 'NFM']));

  // what was dropped is counted, said why, and can be seen
  expect(await sees(page(), '[aria-label=Stations] [role=status]', /dropped, since this radio/)).toMatch(
    /\d+ dropped, since this radio (has no|does not|cannot)/,
  );
  const dropped = await page().$('::-p-text(dropped)');
  await dropped!.click();
  await sees(page(), 'tbody', 'has no DMR');
  await dropped!.click();
  await until('the dropped ones to go', async () => !(await textOf(page(), 'tbody')).includes('has no DMR'));

  const boxes = await page().$$('tbody [role=checkbox]');
  await boxes[0]!.click();
  await page().keyboard.down('Shift');
  await boxes[11]!.click();
  await page().keyboard.up('Shift');
  await sees(page(), '[aria-label="Place"]', 'Place 12 channels');
  const slots = await page().$$eval('[aria-label="Preview of the slots"] li span:first-child', (all) =>
    all.map((one) => Number(one.textContent)),
  );
  // the demo uses 0 to 10, 12 to 17, 20, 21 and 24
  expect(slots).toEqual([11, 18, 19, 22, 23, 25, 26, 27, 28, 29, 30, 31]);
  expect(await read()).toMatchObject({
    revision: 1,
    plan: { channels: { length: 20 } },
  });

  await press(page(), 'Place 12 channels');
  await sees(page(), 'aside [role=status]', 'Place 12 channels');
  expect((await channels()).map((channel) => channel.slot)).toEqual(expect.arrayContaining(slots));
  expect(await channels()).toHaveLength(32);
  await press(page(), 'See them in the plan');
  await until('34 rows', async () => (await page().$('[role=grid][aria-rowcount="34"]')) !== null);
});

test('a transmit side, an access tone and a name are typed; six weather channels become listen only in one stroke', async () => {
  await type(page(), 10, 'tx', '-');
  await sees(page(), await cell(page(), 10, 'tx'), '145.175');
  await type(page(), 6, 'access', '88.5/88.5');
  await type(page(), 2, 'name', 'Club evening');
  await kept(page());
  expect(await inSlot(10)).toMatchObject({ tx: 145_175_000 });
  expect(await inSlot(6)).toMatchObject({ access: { send: { tone: 885 }, expect: { tone: 885 } } });
  expect(await inSlot(2)).toMatchObject({ name: 'Club evening' });

  await page().click(await cell(page(), 12, 'rx'));
  await page().keyboard.down('Shift');
  await page().click(await cell(page(), 17, 'rx'));
  await page().keyboard.up('Shift');
  await sees(page(), 'footer', '6 chosen');
  await page().keyboard.press('l');
  await kept(page());
  expect(
    (await channels())
      .filter((channel) => channel.rx >= 162_400_000 && channel.rx <= 162_525_000 && channel.slot <= 17)
      .map((channel) => channel.tx),
  ).toEqual([null, null, null, null, null, null]);
  const { body } = await world().api<{ edits: { label: string }[] }>(`/api/plans/${PLAN}/edits`);
  expect(body.edits[0]!.label).toBe('Set 6 channels to listen only');
});

test('a mistake is undone', async () => {
  await page().click(await cell(page(), 3, 'slot'));
  await page().keyboard.press('Delete');
  await kept(page());
  expect(await inSlot(3)).toBeUndefined();
  await page().keyboard.down('Control');
  await page().keyboard.press('z');
  await page().keyboard.up('Control');
  await until('Ullsmere Hill to be back', async () => (await inSlot(3))?.name === 'Ullsmere Hill');
  await sees(page(), '[role=grid]', 'Ullsmere Hill');
});

test('what is not understood stays in the cell with its reason, whatever is done elsewhere, and can be undone', async () => {
  await type(page(), 0, 'rx', '145.5.5');
  await sees(page(), '#cell-message', 'more than one decimal mark');
  await page().click(await cell(page(), 1, 'name'));
  await sees(page(), await cell(page(), 0, 'rx'), '145.5.5');
  expect(await inSlot(0)).toMatchObject({ rx: 145_500_000 });
  await kept(page());
  await press(page(), 'Undo');
  await sees(page(), await cell(page(), 0, 'rx'), '145.500');
  await kept(page());
});

test('Check shows one stop, and its mend takes it away', async () => {
  await findingsCome(page(), /\b1 stop\b/);
  await sees(page(), '[aria-label=Findings] li:first-child', 'Garrowick Ridge');
  await press(page(), 'Use 110.9');
  await kept(page());
  await findingsCome(page(), /^(?!.*stop)/);
  expect(await inSlot(8)).toMatchObject({ access: { send: { tone: 1109 } } });
  const { body } = await world().api<{ heldBack: unknown[] }>(`/api/plans/${PLAN}/check`);
  expect(body.heldBack).toEqual([]);
});

test('a radio is plugged in and read; what it held is sealed', async () => {
  await world().atBench('/bench/radios/tern-1', { plugged: true });
  await press(page(), 'Write to a radio');
  await sees(page(), 'h2', 'Larkmoor Tern P2');
  await sees(page(), '[aria-label="Sealed copies"]', 'None yet');
  await press(page(), 'Read');
  await sees(page(), '[aria-label="Under way"]', 'LK204417 was read');
  await sees(page(), '[aria-label="Sealed copies"]', 'As it came');
  await sees(page(), '[aria-label="What it holds"]', '9 channels');
});

test('it is written with a true progress bar, read back, and agrees byte for byte', async () => {
  await sees(page(), '[aria-label="Write a plan"]', /\d+ new, \d+ changed/);
  await press(page(), 'Write to LK204417');
  expect(await textOf(page(), '[aria-label="Before writing"]')).toMatch(
    /Write Ketterby weekend, revision \d+, to the Larkmoor Tern P2 with serial LK204417/,
  );
  // So slow that the page hears of it on the way, however slow the page is.
  await world().atBench('/bench/radios/tern-1/faults', { kind: 'slow', factor: 4 });
  await page().evaluate(() => {
    const values: number[] = [];
    Object.assign(window, { values });
    new MutationObserver(() => {
      const now = document.querySelector('[role=progressbar]')?.getAttribute('aria-valuenow');
      if (now && Number(now) !== values.at(-1)) values.push(Number(now));
    }).observe(document.body, { subtree: true, childList: true, attributes: true });
  });
  await press(page(), 'Write it');
  await sees(page(), '[aria-label="Under way"]', 'was written to LK204417');
  const seen = await page().evaluate(() => (window as unknown as { values: number[] }).values);
  await world().atBench('/bench/radios/tern-1/faults', { kind: 'none' });
  expect(seen.length).toBeGreaterThan(4);
  expect(seen).toEqual([...seen].sort((a, b) => a - b));
  // 8,192 bytes less the 16 that the radio counts in
  expect(await textOf(page(), '[aria-label="Under way"]')).toContain(
    '32 channels, and all 8,176 bytes read back as they were sent',
  );
  await sees(
    page(),
    '[aria-label="Write a plan"]',
    'Nothing changes: the radio holds these 32 channels already.',
  );
  await sees(page(), '[aria-label="Sealed copies"]', 'After a write');
});

test('the radio face shows the new channel, receiving and with the key down; so does the radio', async () => {
  await sees(page(), '[aria-label="What it holds"]', '32 channels');
  await page().evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('[aria-label="What it holds"] li button')]
      .find((button) => button.textContent?.startsWith('010'))!
      .click(),
  );
  await sees(page(), '[aria-label=Display]', '145.7750');
  const key = (await page().$('::-p-aria([name="Hold to send"][role="button"])'))!;
  const box = (await key.boundingBox())!;
  await page().mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page().mouse.down();
  expect(await sees(page(), '[aria-label=Display]', 'SEND')).toContain('145.1750');
  await page().mouse.up();
  await sees(page(), '[aria-label=Display]', '−0.600');
  type Look = { face: { slot: string; large: string; small: string; marks: string[] } };
  const receiving = (await world().atBench('/bench/radios/tern-1', { slot: 10 })) as Look;
  expect(receiving.face).toMatchObject({ slot: 'M-010', small: '145.7750' });
  const sending = (await world().atBench('/bench/radios/tern-1', { keyDown: true })) as Look;
  expect(sending.face.large).toBe('145.1750');
  expect(sending.face.marks).toContain('SEND');
});

test('after a reload and a restart of the server everything is there, undo included', async () => {
  const errors = at.errors();
  const before = await read();
  await page().goto(`${world().url}/plans/${PLAN}`);
  await sees(page(), 'header [role=status]', `revision ${before.revision}`);
  await world().kill('SIGTERM');
  await world().start();
  expect(await read()).toEqual(before);
  await page().reload();
  await sees(page(), '[role=grid]', 'Club evening');
  const undo = (await page().$('::-p-aria([name="Undo"][role="button"])'))!;
  expect(await undo.evaluate((button) => button.getAttribute('title'))).toContain(
    'Set access of “Garrowick Ridge” to 110.9',
  );
  // As soon as it has come to rest: what Check finds makes room for itself beside it.
  await press(page(), 'Undo');
  await until('the mend to be undone', async () => (await inSlot(8))?.access.send?.tone === 1108);
  // undone once more, past the one that was undone already: the six weather channels can send again
  await kept(page());
  await press(page(), 'Undo');
  await until('the weather channels', async () => (await inSlot(12))?.tx === 162_400_000);
  await press(page(), 'Redo');
  await until('listen only again', async () => (await inSlot(12))?.tx === null);
  const radios = (await world().api<{ radios: { copies: unknown[] }[] }>('/api/radios')).body.radios;
  expect(radios[0]!.copies.length).toBeGreaterThanOrEqual(2);
  await kept(page());
  await page().goto(world().url);
  await sees(page(), '[aria-label=Plans]', 'Written to LK204417; changed since');
  expect(errors).toEqual([]);
});
