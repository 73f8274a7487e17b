// Part of npm run measure: searching 100,000 kept stations at the HTTP API, around a place and along a route.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

const KEPT = 100_000;
const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

export async function measureFind({ demo, folder, report }) {
  const data = join(folder, 'find');
  const filled = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/fill-stations.ts', String(KEPT)], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, VERIDON_DATA_DIR: data, VERIDON_RESERVE_MB: '1' },
  });
  if (filled.status !== 0) throw new Error('The stations could not be kept.');
  const world = await demo(data, 8);
  const ask = async (query) => {
    const began = performance.now();
    const answer = await fetch(`${world.url}/api/stations?ask=no&${query}`);
    const text = await answer.text();
    if (!answer.ok) throw new Error(text);
    return { ms: performance.now() - began, found: JSON.parse(text) };
  };
  const around = (n) =>
    `lat=${(52 + Math.sin(n) * 0.8).toFixed(3)}&lon=${(-30 + Math.cos(n * 7) * 1.5).toFixed(3)}&radius=40&most=100`;
  const along = (n) =>
    `route=${[0, 1, 2].map((at) => `${(51.6 + at * 0.4 + Math.sin(n + at) * 0.2).toFixed(3)},${(-31 + at * 0.9).toFixed(3)}`).join(';')}&radius=15&most=100`;
  for (const [what, query] of [
    ['around a place, 40 km', around],
    ['along a route of three places, 15 km', along],
  ]) {
    for (let n = 0; n < 10; n++) await ask(query(n + 0.5));
    const times = [];
    let beyond = 0;
    for (let n = 0; n < 100; n++) {
      const { ms, found } = await ask(query(n));
      times.push(ms);
      beyond += found.beyond + found.candidates.length;
    }
    report(
      `Stations ${what}, of 100,000 kept, 95th`,
      [quantile(times, 0.95)],
      'ms',
      `median ${quantile(times, 0.5).toFixed(1)} ms, ${Math.round(beyond / 100)} found of which 100 are answered`,
    );
  }
  await world.stop();
}
