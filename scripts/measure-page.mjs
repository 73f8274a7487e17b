// Part of npm run measure: the page of a plan of 150 channels.

/** Makes a plan of 150 channels; says which it is. */
export async function fullPlan(world) {
  const ask = async (path, body) =>
    (await fetch(world.url + path, body && { method: 'POST', body: JSON.stringify(body) })).json();
  const made = await ask('/api/plans', {
    name: 'Full plan',
    modelId: 'tern-p2',
    owner: { callSign: 'Q7ABC' },
  });
  const letters = 'abcdefghijklmnop';
  const channels = Array.from({ length: 150 }, (_, i) => ({
    id: `ch_full${letters[i >> 4]}${letters[i & 15]}`,
    name: `Station ${i}`,
    fitted: {},
    rx: 145_600_000 + (i % 16) * 12_500 + Math.floor(i / 16) * 100_000,
    tx: 145_000_000 + (i % 16) * 12_500 + Math.floor(i / 16) * 100_000,
    txFixed: false,
    access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
    mode: 'FM',
    power: 2000,
    scan: true,
    alwaysOn: false,
    note: '',
    source: null,
  }));
  const placed = await ask(`/api/plans/${made.plan.id}/edits`, {
    base: 1,
    edit: { name: 'place', channels, placement: 'next-free', at: 0, range: { first: 0, count: 150 } },
  });
  if (placed.revision !== 2) throw new Error(JSON.stringify(placed));
  return made.plan.id;
}

export async function measurePage({ world, browser, report }) {
  const id = await fullPlan(world);
  // From asking for the page of a full plan to the first character in a cell.
  const typed = [];
  for (let run = 0; run < 7; run++) {
    const page = await browser.newPage();
    await page.setViewport({ width: 1280, height: 800 });
    const began = performance.now();
    await page.goto(`${world.url}/plans/${id}`, { waitUntil: 'domcontentloaded' });
    await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid', {
      polling: 'raf',
    });
    await page.keyboard.type('x');
    await page.waitForFunction(() => document.activeElement?.value === 'x', { polling: 'raf' });
    typed.push(performance.now() - began);
    await page.close();
  }
  report('Plan page (150 channels) to first typed character', typed, 'ms');

  // From the key that ends typing to the frame that shows the new value; fit, check and strip are worked out in between.
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${world.url}/plans/${id}`);
  await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid');
  const paints = [];
  for (let run = 0; run < 25; run++) {
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.type(`Paint ${run}`);
    paints.push(
      await page.evaluate(
        () =>
          new Promise((done) => {
            const began = performance.now();
            document.activeElement.dispatchEvent(
              new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }),
            );
            requestAnimationFrame(() => {
              const channel = new MessageChannel();
              channel.port1.onmessage = () => done(performance.now() - began);
              channel.port2.postMessage(null);
            });
          }),
      ),
    );
  }
  report('Edit to paint (150 channels)', paints, 'ms', 'the next frame is up to 16.7 ms away by itself');
  await page.close();
}
