// Part of npm run measure: a roll of 250,000 people loaded, against JSON.parse and a bare COPY of the same rows; how long somebody waits who does something else meanwhile; people found as one types.
/* global Blob */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

/** As somebody types them, letter by letter, from the most that a letter can mean to one person. */
const WORDS = ['wenna daskow', 'q7aaa', '1000777', 'ketterby', 'torrin harr ullsmere', 'nobody at all'];

/** JSON.parse of the roll, and COPY of its rows into a table of its own with the same key, ms each. */
async function bare(text) {
  let began = performance.now();
  const { people } = JSON.parse(text);
  const parsed = performance.now() - began;
  const folder = mkdtempSync(join(tmpdir(), 'veridon-copy-'));
  const database = await PGlite.create(folder);
  await database.exec(
    'create table people (roll int, id int, call text, first text, last text, town text, area text, primary key (roll, id))',
  );
  const rows = people.map(
    (one) => `1\t${one.id}\t${one.call}\t${one.first}\t${one.last}\t${one.town}\t${one.island}\n`,
  );
  const blob = new Blob([rows.join('')]);
  began = performance.now();
  await database.query("copy people from '/dev/blob'", [], { blob });
  const copied = performance.now() - began;
  await database.close();
  rmSync(folder, { recursive: true, force: true });
  return { parsed, copied };
}

/** How much faster than real the lines of the bench are here. */
const SPEED = 4;
/** Twenty bytes a person and 16; eleven more for each 1,024; ten bits a byte, at the rate of the Osprey's line. */
const secondsOnLine = (people) => {
  const bytes = people * 20 + 16;
  return ((bytes + Math.ceil(bytes / 1024) * 11) * 10) / 460_800;
};

/** Everybody into a radio: how long they are gathered, and how near to what its line can carry they are written. */
async function intoRadio({ ask, world, data, report, memoryOf, idle }) {
  const key = readFileSync(join(data, 'bench', 'key'), 'utf8').trim();
  await fetch(`${world.bench}/bench/radios/osprey-1`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${key}` },
    body: JSON.stringify({ plugged: true }),
  });
  const { radios } = await ask('/api/radios');
  const { id: radioId } = radios.find(({ modelId, port }) => modelId === 'osprey-d7' && port !== null);
  const choice = {
    planId: 'pl_islesnetwork',
    template: '{call} {first}',
    heard: 0,
    groups: [],
    who: 'in the roll',
    rest: true,
  };
  const began = performance.now();
  const body = JSON.stringify({ kind: 'people', radioId, choice });
  const { id } = await ask('/api/jobs', { method: 'POST', body });
  let [gathered, most] = [0, 0];
  for (;;) {
    const job = await ask(`/api/jobs/${id}`);
    most = Math.max(most, memoryOf(world.port));
    if (gathered === 0 && job.phase === 'writing') gathered = performance.now();
    if (job.state === 'failed') throw new Error(job.message);
    if (job.state === 'done') {
      const took = (performance.now() - gathered) / 1000;
      const line = secondsOnLine(job.result.people) / SPEED;
      report(
        `${job.result.people.toLocaleString('en')} people gathered and named for a radio`,
        [gathered - began],
        'ms',
      );
      report(
        'Writing people, share of the line rate',
        [line / took],
        '',
        `${took.toFixed(1)} s, a line ${SPEED} times as fast as real`,
      );
      report('Memory above idle meanwhile, at most', [most - idle], 'MB');
      return;
    }
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** The roll loaded into a world of its own, while somebody asks for a plan again and again; right after it what it is held against. */
async function loaded({ demo, data, memoryOf }) {
  const world = await demo(data, SPEED);
  // Put together once, as a file that lies there: that is no work of ours.
  const text = await (await fetch(`${world.bench}/roll/people.json`)).text();
  // A connection that was idle may be closed just then: asked again.
  const reach = (path, init) => fetch(world.url + path, init).catch(() => fetch(world.url + path, init));
  const ask = async (path, init) => (await reach(path, init)).json();
  const idle = memoryOf(world.port);
  const waits = [];
  let peak = idle;
  const began = performance.now();
  await ask('/api/people/roll', { method: 'POST' });
  for (;;) {
    const asked = performance.now();
    await ask('/api/plans/pl_ketterbyweekend');
    waits.push(performance.now() - asked);
    peak = Math.max(peak, memoryOf(world.port));
    const { load } = await ask('/api/people/roll');
    if (load.state !== 'loading') {
      if (load.state !== 'done') throw new Error(load.message);
      break;
    }
    await new Promise((done) => setTimeout(done, 50));
  }
  const took = performance.now() - began;
  return { world, ask, idle, waits, peak, took, bare: await bare(text) };
}

export async function measurePeople({ demo, folder, report, memoryOf }) {
  const runs = [];
  for (let run = 0; run < 3; run++) {
    await runs.at(-1)?.world.stop();
    runs.push(await loaded({ demo, data: join(folder, `people-${run}`), memoryOf }));
  }
  const { world, ask, idle } = runs.at(-1);
  const median = (of) => quantile(runs.map(of), 0.5);
  report(
    '250,000 people loaded',
    runs.map(({ took }) => took),
    'ms',
    `${median(({ took, bare: { parsed, copied } }) => took / (parsed + copied)).toFixed(2)} times JSON.parse (${median((run) => run.bare.parsed).toFixed(0)} ms) and a bare COPY (${median((run) => run.bare.copied).toFixed(0)} ms)`,
  );
  report(
    'Memory above idle while they are loaded, at most',
    [Math.max(...runs.map((run) => run.peak - run.idle))],
    'MB',
  );
  const waits = runs.flatMap((run) => run.waits);
  report(
    'Another who asks for a plan meanwhile waits, at most',
    [Math.max(...waits)],
    'ms',
    `95th ${quantile(waits, 0.95).toFixed(0)} ms`,
  );

  const first = performance.now();
  await ask('/api/people/found?q=wenna');
  report('The first search after it', [performance.now() - first], 'ms');
  const times = [];
  for (let round = 0; round < 6; round++)
    for (const word of WORDS)
      for (let end = 1; end <= word.length; end++) {
        const asked = performance.now();
        await ask(`/api/people/found?q=${encodeURIComponent(word.slice(0, end))}`);
        times.push(performance.now() - asked);
      }
  report(
    'People found as one types, at the API, 95th',
    [quantile(times, 0.95)],
    'ms',
    `median ${quantile(times, 0.5).toFixed(1)} ms, ${times.length} letters`,
  );
  await intoRadio({ ask, world, data: join(folder, 'people-2'), report, memoryOf, idle });
  await world.stop();
}
