// Part of npm run measure: what is done to many rows at once, on a plan of 3,600 channels in the browser.

/* global DataTransfer, ClipboardEvent, Event, HTMLInputElement */

/** Runs in the page: does something and says how long until the frame that shows it has been painted, ms. */
const untilPainted = (act, given) =>
  new Promise((done) => {
    const began = performance.now();
    act(given);
    // The first frame lays out what was done at once, the second what that had put off.
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        const channel = new MessageChannel();
        channel.port1.onmessage = () => done(performance.now() - began);
        channel.port2.postMessage(null);
      }),
    );
  });
const painted = (page, act, given) =>
  page.evaluate(`(${untilPainted})(${act}, ${JSON.stringify(given ?? null)})`);

export async function measureTable({ world, browser, report, id }) {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const kept = () =>
    page.waitForFunction(
      () => /^Kept/.test(document.querySelector('header [role=status]')?.textContent ?? ''),
      {
        polling: 'raf',
        timeout: 60_000,
      },
    );
  await page.goto(`${world.url}/plans/${id}`);
  await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid');
  await page.waitForFunction(() => document.querySelectorAll('[aria-label=Findings] li').length > 0, {
    timeout: 60_000,
  });
  await kept();

  // One change to all rows: everything chosen, then made listen only, and undone.
  const all = [];
  const onDisk = [];
  for (let run = 0; run < 5; run++) {
    await page.focus('[role=grid]');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    const began = performance.now();
    all.push(
      await painted(page, () =>
        [...document.querySelectorAll('[role=toolbar] button')]
          .find((one) => one.textContent === 'Listen only')
          .click(),
      ),
    );
    await kept();
    onDisk.push(performance.now() - began);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(
      () => !/listen only/.test(document.querySelector('#cell-2-tx')?.textContent ?? ''),
    );
    await kept();
  }
  report('One change to 3,600 rows, painted', all, 'ms');
  report('One change to 3,600 rows, kept', onDisk, 'ms');

  // What is typed into the field over the table, once what understands it is there.
  const filter = async (text) => {
    const field = (given) => {
      const input = document.querySelector('#find-in-plan');
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, given);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    };
    return painted(page, field, text);
  };
  await filter('2 m');
  await page.waitForSelector('[aria-label="What is shown"]');
  await filter('');
  const filters = [];
  for (const text of ['hill', '70 cm -dmr', 'stop', 'listen', 'no tone 2 m', ''])
    filters.push(await filter(text));
  report('Filter of 3,600 rows', filters, 'ms');
  const sorts = [];
  for (const column of ['name', 'receive', 'access', 'name', 'receive']) {
    // What the filter, or the order before, left for a quiet moment is theirs.
    await new Promise((done) => setTimeout(done, 400));
    sorts.push(
      await painted(
        page,
        (given) => document.querySelector(`[aria-label="Show by ${given}"]`).click(),
        column,
      ),
    );
  }
  report('Sorted view of 3,600 rows', sorts, 'ms');
  await page.evaluate(() =>
    [...document.querySelectorAll('button')].find((one) => one.textContent === 'By slot again')?.click(),
  );

  // Two thousand rows over the first two thousand, as a spreadsheet hands them over.
  const block = Array.from(
    { length: 2000 },
    (_, n) => `Pasted ${n}\t${(145 + (n % 80) * 0.0125).toFixed(4).replace('.', ',')}\t-0,6\t88,5\tFM`,
  ).join('\r\n');
  await page.focus('[role=grid]');
  await page.keyboard.down('Control');
  await page.keyboard.press('Home');
  await page.keyboard.up('Control');
  await page.keyboard.press('ArrowRight');
  const pastes = [];
  for (let run = 0; run < 3; run++) {
    const began = performance.now();
    await page.evaluate(
      (text, last) => {
        const data = new DataTransfer();
        data.setData('text/plain', text.replaceAll('Pasted', last));
        document
          .querySelector('[role=grid]')
          .dispatchEvent(
            new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
          );
      },
      block,
      `Run ${run}`,
    );
    await page.waitForFunction(
      (last) => document.querySelector('#cell-2-name')?.textContent.startsWith(last),
      { polling: 'raf' },
      `Run ${run}`,
    );
    pastes.push(performance.now() - began);
    await kept();
  }
  report('Paste of 2,000 rows, painted', pastes, 'ms');
  await kept();

  // What somebody does in another window: from its answer to the frame that shows it here. A second is promised.
  const others = [];
  for (let run = 0; run < 5; run++) {
    const plan = await (await fetch(`${world.url}/api/plans/${id}`)).json();
    const first = plan.plan.channels.reduce((one, other) => (other.slot < one.slot ? other : one));
    const name = `Elsewhere ${run}`;
    const edit = { name: 'change', changes: [{ id: first.id, set: { name } }] };
    await fetch(`${world.url}/api/plans/${id}/edits`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ base: plan.revision, edit }),
    });
    const began = performance.now();
    await page.waitForFunction(
      (wanted) => document.querySelector('#cell-0-name')?.textContent?.includes(wanted),
      { polling: 'raf', timeout: 60_000 },
      name,
    );
    others.push(performance.now() - began);
  }
  report('An edit of another window, shown', others, 'ms');
  await page.close();
}
