// Part of npm run measure: radios on the bench. One written alone, ten at once; what the server holds meanwhile.
/* global clearInterval */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Ten of the bench that have a cable, one of them with two modules. */
const TEN = [1, 2, 3, 4, 5, 6]
  .map((n) => `tern-${n}`)
  .concat(['gannet-1', 'gannet-2', 'curlew-1', 'curlew-2']);

export async function measureLinks({ demo, folder, report, memoryOf }) {
  const data = join(folder, 'links');
  // Ten times as fast as real: a write of a Tern takes seconds, and the lines are what is waited for.
  const world = await demo(data, 10);
  const key = readFileSync(join(data, 'bench', 'key'), 'utf8').trim();
  const hand = (id, body) =>
    fetch(`${world.bench}/bench/radios/${id}`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${key}` },
      body: JSON.stringify(body),
    }).then((answer) => answer.json());
  const ask = async (path, body) => {
    const answer = await fetch(world.url + path, {
      method: body === undefined ? 'GET' : 'POST',
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    const json = await answer.json();
    if (!answer.ok) throw new Error(`${path}: ${json.detail}`);
    return json;
  };
  const pause = () => new Promise((done) => setTimeout(done, 20));
  const over = async (id) => {
    for (;;) {
      const { jobs } = await ask('/api/jobs');
      const job = jobs.find((one) => one.id === id);
      if (job.state === 'done') return;
      if (job.state !== 'running') throw new Error(job.message);
      await pause();
    }
  };
  for (const id of TEN) await hand(id, { plugged: true });
  const { radios } = await ask('/api/radios');
  const here = radios.filter(({ port }) => port !== null);
  if (here.length !== TEN.length) throw new Error(`${here.length} radios are there.`);
  for (const { id } of here) await over((await ask('/api/jobs', { kind: 'read', radioId: id })).id);
  const { revision } = await ask('/api/plans/pl_ketterbyweekend');
  const plan = { planId: 'pl_ketterbyweekend', planRevision: revision };
  const idle = memoryOf(world.port);
  let most = idle;
  const watch = setInterval(() => (most = Math.max(most, memoryOf(world.port))), 50);
  const written = async (radio) => {
    const began = performance.now();
    await over((await ask('/api/jobs', { kind: 'write', radioId: radio.id, ...plan })).id);
    return performance.now() - began;
  };
  // The one that takes longest alone is what ten at once cannot be faster than.
  const alone = [];
  for (const radio of here) alone.push(await written(radio));
  const slowest = Math.max(...alone);
  report(
    'A plan written to one radio, the slowest of ten alone',
    [slowest],
    'ms',
    'lines ten times as fast as real',
  );
  const together = [];
  for (let run = 0; run < 3; run++) {
    const began = performance.now();
    const { id } = await ask('/api/several', {
      ...plan,
      together: true,
      radios: here.map((radio) => ({ radioId: radio.id, own: {} })),
    });
    for (;;) {
      const batch = await ask(`/api/several/${id}`);
      if (!batch.running) {
        const bad = batch.rows.filter(({ state }) => state !== 'done');
        if (bad.length > 0) throw new Error(bad.map(({ message }) => message).join(' '));
        break;
      }
      await pause();
    }
    together.push(performance.now() - began);
  }
  const middle = [...together].sort((a, b) => a - b)[1];
  report(
    'The same to ten radios at once',
    together,
    'ms',
    `${(middle / slowest).toFixed(2)} times the slowest alone`,
  );
  clearInterval(watch);
  report('Memory of the server while it writes', [most - idle], 'MB', `above ${idle.toFixed(0)} MB before`);
  await world.stop();
}
