// Part of npm run measure: the large plan and many people, against the running application and in the browser.
/* global window, addEventListener */
import { measureTable } from './measure-table.mjs';
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Bytes of a folder; those of the database's log apart, which is of bounded length and used again and again. */
function weigh(folder) {
  let [data, log] = [0, 0];
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath ?? entry.path, entry.name);
    if (path.includes('/pg_wal/')) log += statSync(path).size;
    else data += statSync(path).size;
  }
  return { data, log };
}

/** MB that the application's process has in memory; its door runs in the same. */
export function memoryOf(port) {
  const pids = execFileSync('sh', ['-c', 'ls /proc | grep -E "^[0-9]+$"']).toString().trim().split('\n');
  for (const pid of pids) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      if (!line.includes('src/door/server.mjs') || !line.split('\0').includes(String(port))) continue;
      return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))[1]) / 1000;
    } catch {
      // It ended meanwhile.
    }
  }
  return NaN;
}

export async function measurePlans({ world, browser, dataFolder, report }) {
  const port = Number(new URL(world.url).port);
  let keys = 0;
  /** Asks as one client or another: each has its turns at the door. */
  const ask = async (path, body, client = 'measure') => {
    const began = performance.now();
    const asked = {
      ...(body && { method: 'POST', body: JSON.stringify(body) }),
      headers: body ? { 'Idempotency-Key': `${client}.${++keys}` } : {},
    };
    // A connection that was closed while this process was busy: sent again with the same key, as a page does it.
    const answer = await fetch(world.url + path, asked).catch(() => fetch(world.url + path, asked));
    const json = await answer.json();
    if (!answer.ok) throw new Error(`${path}: ${JSON.stringify(json).slice(0, 300)}`);
    return { json, ms: performance.now() - began };
  };
  report('Memory of the server, idle', [memoryOf(port)], 'MB');

  // The plans themselves are made in a process of their own, which knows TypeScript.
  const made = JSON.parse(
    execFileSync(process.execPath, ['--import', 'tsx', 'scripts/large-plan-json.ts'], {
      maxBuffer: 1e8,
    }).toString(),
  );
  const keep = async ({ name, channels }) => {
    const { json } = await ask('/api/plans', { name, modelId: 'tern-p2', owner: { callSign: 'Q7KWD' } });
    const { id } = json.plan;
    const bare = channels.map((channel) =>
      Object.fromEntries(Object.entries(channel).filter(([key]) => key !== 'slot' && key !== 'list')),
    );
    let revision = 1;
    for (let from = 0; from < bare.length; from += 1200)
      ({ revision } = (
        await ask(`/api/plans/${id}/edits`, {
          base: revision,
          edit: {
            name: 'place',
            channels: bare.slice(from, from + 1200),
            placement: 'next-free',
            at: 0,
            range: { first: 0, count: 4000 },
          },
        })
      ).json);
    return { id, revision, channels };
  };
  const good = await keep(made.good);
  const bad = await keep(made.bad);
  const change = (plan, n, name) => ({
    base: plan.revision,
    edit: {
      name: 'change',
      changes: [{ id: plan.channels[(n * 37) % plan.channels.length].id, set: { name } }],
    },
  });
  const cell = async (plan, n, client) => {
    const { json, ms } = await ask(`/api/plans/${plan.id}/edits`, change(plan, n, `Cell ${n}`), client);
    plan.revision = json.revision;
    return ms;
  };
  for (let n = 0; n < 30; n++) await cell(good, n);
  const before = weigh(dataFolder);
  const cells = [];
  for (let n = 0; n < 1000; n++) cells.push(await cell(good, n));
  await pause(500);
  const after = weigh(dataFolder);
  report(
    'One cell of 3,600 channels, 95th',
    [quantile(cells, 0.95)],
    'ms',
    `median ${quantile(cells, 0.5).toFixed(1)} ms, 1,000 edits`,
  );
  report(
    'Disk that one changed cell costs',
    [(after.data - before.data) / 1000 / 1000],
    'kB',
    `over 1,000 edits; the database's log of ${(after.log / 1e6).toFixed(0)} MB beside it is used again and again`,
  );
  report('Memory of the server after 1,000 edits', [memoryOf(port)], 'MB');

  const small = [];
  for (let n = 0; n < 48; n++)
    small.push(
      (await ask('/api/plans', { name: `Plan ${n}`, modelId: 'tern-p2', owner: { callSign: '' } })).json.plan
        .id,
    );
  await ask('/api/plans');
  const lists = [];
  for (let n = 0; n < 15; n++) {
    await cell({ ...good, revision: good.revision }, n).then(() => good.revision++);
    await ask('/api/plans');
    lists.push((await ask('/api/plans')).ms);
  }
  report('List of 50 plans, two of them of 3,600 channels', lists, 'ms');
  const back = await ask(`/api/plans/${good.id}/go-back`, {
    base: good.revision,
    revision: good.revision - 1,
  });
  good.revision = back.json.revision;
  report(
    'Going back one revision: the edit that is logged',
    [JSON.stringify(back.json.edits).length / 1000],
    'kB',
    `${back.ms.toFixed(0)} ms`,
  );
  const far = await ask(`/api/plans/${good.id}/go-back`, { base: good.revision, revision: 20 });
  good.revision = far.json.revision;
  report('Going back 1,000 revisions', [far.ms], 'ms');

  for (const [what, size] of [
    ['20', 20],
    ['3,600', 3600],
  ]) {
    const seconds = 5;
    let done = 0;
    const people = Array.from({ length: 20 }, async (_, who) => {
      const channels = made.good.channels.slice(0, size).map((one, n) => ({
        ...one,
        id: `ch_person${String(who).padStart(2, '0')}${String(n).padStart(5, '0')}`,
      }));
      return keep({ name: `Person ${who} of ${what}`, channels });
    });
    const plans = [];
    for (const one of people) plans.push(await one);
    const until = Date.now() + seconds * 1000;
    await Promise.all(
      plans.map(async (plan, who) => {
        for (let n = 0; Date.now() < until; n++, done++) await cell(plan, n, `person${who}`);
      }),
    );
    report(`20 people at once, plans of ${what} channels`, [done / seconds], 'edits a second');
  }

  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const typed = [];
  for (let run = 0; run < 5; run++) {
    const began = performance.now();
    await page.goto(`${world.url}/plans/${bad.id}`, { waitUntil: 'domcontentloaded' });
    await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid', {
      polling: 'raf',
    });
    await page.keyboard.type('x');
    await page.waitForFunction(() => document.activeElement?.value === 'x', { polling: 'raf' });
    typed.push(performance.now() - began);
    await page.keyboard.press('Escape');
  }
  report('Plan page (3,600 channels, thousands of findings) to first typed character', typed, 'ms');
  await page.waitForFunction(() => document.querySelectorAll('[aria-label=Findings] li').length > 0);

  // From a key's own moment to the end of the frame that shows it.
  await page.evaluate(() => {
    window.typed = [];
    addEventListener(
      'keydown',
      (event) => {
        const began = event.timeStamp;
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => window.typed.push(performance.now() - began);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  });
  for (let n = 0; n < 20; n++) {
    await page.keyboard.type(`Name ${n}`, { delay: 25 });
    await page.keyboard.press('Enter');
    await pause(60);
  }
  const keyPaints = await page.evaluate(() => window.typed);
  report(
    'Key to paint while typing, 3,600 channels, 95th',
    [quantile(keyPaints, 0.95)],
    'ms',
    `median ${quantile(keyPaints, 0.5).toFixed(1)} ms, ${keyPaints.length} keys`,
  );

  const frames = await page.evaluate(
    () =>
      new Promise((done) => {
        const grid = document.querySelector('[role=grid]');
        grid.scrollTop = 0;
        const times = [];
        let last = performance.now();
        const step = (now) => {
          times.push(now - last);
          last = now;
          grid.scrollTop += 400;
          if (grid.scrollTop + grid.clientHeight >= grid.scrollHeight - 2) done(times.slice(2));
          else requestAnimationFrame(step);
        };
        requestAnimationFrame(step);
      }),
  );
  report(
    'Frames while scrolling 3,600 rows end to end, 95th',
    [quantile(frames, 0.95)],
    'ms',
    `median ${quantile(frames, 0.5).toFixed(1)} ms, ${frames.length} frames`,
  );
  await page.close();
  await measureTable({ world, browser, report, id: good.id });
}
