// Part of npm run measure: a full Osprey plan in the page: the matrix of 200 by 200 scrolled, a talkgroup's tick to paint; and its core, in a process of its own.
import { spawnSync } from 'node:child_process';

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

export async function measureDigital({ world, browser, report }) {
  const core = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/measure-digital.ts'], {
    stdio: 'inherit',
  });
  if (core.status !== 0) throw new Error('The core of digital plans could not be measured.');
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/full-osprey-json.ts'], {
    maxBuffer: 1e9,
    encoding: 'utf8',
  });
  const full = JSON.parse(made.stdout);
  const ask = async (path, body) => {
    const answer = await fetch(world.url + path, { method: 'POST', body: JSON.stringify(body) });
    const json = await answer.json();
    if (!answer.ok) throw new Error(json.detail);
    return json;
  };
  const { plan } = await ask('/api/plans', {
    name: full.name,
    modelId: full.modelId,
    owner: { callSign: 'Q7KWD' },
  });
  let revision = 1;
  const edit = async (one) =>
    ({ revision } = await ask(`/api/plans/${plan.id}/edits`, { base: revision, edit: one }));
  const put = (kind, records) => edit({ name: 'put', kind, records, before: null });
  await put('talkgroup', full.talkgroups);
  await put('receiveList', full.receiveLists);
  const range = { first: 1, count: 3600 };
  for (let from = 0; from < 3600; from += 1200) {
    const channels = full.channels
      .slice(from, from + 1200)
      .map((channel) =>
        Object.fromEntries(Object.entries(channel).filter(([key]) => key !== 'slot' && key !== 'list')),
      );
    await edit({ name: 'place', channels, placement: 'next-free', at: 1, range });
  }
  await put('scanList', full.scanLists);
  await put('zone', full.zones);
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const began = performance.now();
  await page.goto(`${world.url}/plans/${plan.id}/organise`);
  await page.waitForSelector('[role=tab]');
  report(
    'Organise of a full Osprey, opened',
    [performance.now() - began],
    'ms',
    '3,600 channels, 8,000 talkgroups',
  );
  const tab = await page.waitForSelector(
    '::-p-xpath(//*[@role="tab"][starts-with(normalize-space(), "Matrix")])',
  );
  await tab.click();
  await page.waitForSelector('[role=grid]');
  await pause(500);
  for (const way of ['scrollTop', 'scrollLeft']) {
    const frames = await page.evaluate(
      (along) =>
        new Promise((done) => {
          const grid = document.querySelector('[role=grid]');
          grid[along] = 0;
          const times = [];
          let last = performance.now();
          const step = (now) => {
            times.push(now - last);
            last = now;
            const before = grid[along];
            grid[along] += 130;
            if (grid[along] === before || times.length > 300) done(times.slice(2));
            else requestAnimationFrame(step);
          };
          requestAnimationFrame(step);
        }),
      way,
    );
    report(
      `Frames while the matrix is scrolled ${way === 'scrollTop' ? 'down' : 'across'}, median`,
      frames,
      'ms',
      `95th ${quantile(frames, 0.95).toFixed(1)} ms; wanted 17`,
    );
  }
  await page.close();
}
