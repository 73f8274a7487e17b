import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AS_USUAL, makeWorld } from '../e2e/world';
import { pullCables } from './cable';
import { neverEnd } from './bodies';
import { spoilCards } from './cards';
import { crowd } from './crowd';
import { hostileBench, lieToSearches } from './directory';
import { memoryOf, type Report } from './figures';
import { sendHostileFiles } from './files';
import { follow } from './following';
import { strikeKeys } from './keys';
import { tryTheLargest } from './largest';
import { kill } from './kills';
import { cutPower, record } from './power-cuts';
import { makeUpRequests } from './requests';
import { pourRolls } from './rolls';
import { mixUnits } from './units';

/**
 * npm run attack: everything that is done to Veridon, in rounds, until the time is over. `--minutes 30 --seed 1`; prints what
 * it counted, and ends with 1 where something did not hold.
 */

const argument = (name: string, otherwise: number) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const minutes = argument('minutes', 30);
const seed = argument('seed', 1);
/** One of cuts, requests, crowd, directory, files, bodies, rolls, largest, cable, cards, following, units, keys, kills, for somebody who looks into it. */
const at = process.argv.indexOf('--only');
const only = at < 0 ? undefined : process.argv[at + 1];
const wanted = (name: string) => only === undefined || only === name;
const end = Date.now() + minutes * 60_000;
// The shares leave a tenth for kills, and a few minutes for what has no share.
const share = (part: number) => Math.min(end, Date.now() + part * minutes * 60_000);

const reports: Report[] = [];
const tell = (report: Report) => {
  reports.push(report);
  console.log(`\n${report.attack}`);
  for (const [name, value] of Object.entries(report.figures)) console.log(`  ${name}: ${value}`);
  for (const sentence of report.broken) console.log(`  BROKEN  ${sentence}`);
};

console.log(`Attacking for ${minutes} minutes, seed ${seed}`);
const folder = mkdtempSync(join(tmpdir(), 'veridon-attack-'));
process.env.VERIDON_RESERVE_MB = '1';
process.env.VERIDON_DATA_DIR = join(folder, 'cuts');
if (wanted('cuts')) {
  const until = share(0.14);
  const recording = await record(join(folder, 'cuts'), 150, seed);
  const { cuts, answered, faults } = await cutPower(recording, {
    // Some two seconds each; places are taken in order, so that there must be time for all of them.
    cuts: Math.min(200, Math.ceil(minutes * 7)),
    seed,
    until,
  });
  tell({ attack: 'power cuts', figures: { cuts, 'answers before them': answered }, broken: faults });
}
let bench = '';
const between = await hostileBench(() => bench);
// Here answers are timed: patience with directories and lines stays below what an answer may take.
const patience = { ...AS_USUAL, VERIDON_DIRECTORY_PATIENCE_MS: '2000', VERIDON_LINK_QUIET_MS: '2000' };
const world = await makeWorld({ env: { VERIDON_BENCH_URL: between.url, ...patience }, speed: 60 });
bench = world.bench;
try {
  const before = memoryOf(world.pid());
  if (wanted('requests')) tell(await makeUpRequests(world, { requests: Infinity, seed, until: share(0.1) }));
  if (wanted('crowd'))
    tell(await crowd(world, { clients: 20, greedy: 4, edits: 40, seed, until: share(0.07) }));
  if (wanted('directory'))
    tell(await lieToSearches(world, between.behave, { searches: 400, seed, until: share(0.07) }));
  if (wanted('files'))
    tell(await sendHostileFiles(world, { files: 400, clients: 10, seed, until: share(0.12) }));
  if (wanted('bodies')) tell(await neverEnd(world, { lines: 40 }));
  if (wanted('rolls')) tell(await pourRolls(world, between.behaveRoll));
  if (wanted('largest')) tell(await tryTheLargest(world));
  console.log(`  memory after these, MB: ${Math.round(before)} to ${Math.round(memoryOf(world.pid()))}`);
  if (wanted('cable')) tell(await pullCables(world, { faults: 200, seed, until: share(0.08) }));
  if (wanted('cards')) tell(await spoilCards(world, { rounds: 200, seed, until: share(0.07) }));
  if (wanted('following')) tell(await follow(world, { rounds: 400, seed, until: share(0.1) }));
  if (wanted('units')) tell(await mixUnits(world, { rounds: 2000, seed, until: share(0.07) }));
  if (wanted('keys')) tell(await strikeKeys(world, { rounds: 200, seed, until: share(0.07) }));
  if (wanted('kills')) tell(await kill(world, { kills: 200, seed, until: end }));
  const mistakes = world.output().match(/^\s*(\w*Error|⨯).*$/gm) ?? [];
  tell({
    attack: 'what the server printed',
    figures: { 'lines of errors': mistakes.length },
    broken: [...new Set(mistakes)].slice(0, 10),
  });
} finally {
  await world.close();
  between.close();
  rmSync(folder, { recursive: true, force: true });
}
const broken = reports.flatMap((report) => report.broken);
console.log(broken.length === 0 ? '\nAll held.' : `\n${broken.length} did not hold.`);
process.exit(broken.length === 0 ? 0 : 1);
