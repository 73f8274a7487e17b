// npm run explore [-- --minutes 10 --seed 1 --only link]: every property with fresh seeds and more cases, and the sweeps that npm test samples, until
// the time is over. Says how to see each failure again; a failure becomes a case of its own in the property's test.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import { installPackages, prepareDatabase } from './prepare.mjs';

installPackages();
prepareDatabase();
const argument = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : process.argv[at + 1];
};
const minutes = Number(argument('minutes', 10));
const firstSeed = Number(argument('seed', Date.now() % 2 ** 31));
const runs = Number(argument('runs', 4));
const only = argument('only', '');
const until = Date.now() + minutes * 60_000;
/** Files that are run with one seed. */
const AT_ONCE = 6;
const REPORT = '.build/explored.json';

// A small generator for the order of the files and the seeds, so that a whole exploration can be repeated (mulberry32).
let state = firstSeed >>> 0;
const random = () => {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = Math.imul(state ^ (state >>> 15), state | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return (t ^ (t >>> 14)) >>> 0;
};

const below = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? below(path) : [path];
  });
const files = below('src').filter(
  (path) =>
    path.endsWith('.test.ts') &&
    path.includes(only) &&
    /fc\.assert|EXPLORING/.test(readFileSync(path, 'utf8')),
);
if (files.length === 0) {
  console.error(`No test with a property has “${only}” in its path.`);
  process.exit(1);
}

/** Runs some files with a seed; false where the time was over before they had ended. */
function explore(some, seed) {
  rmSync(REPORT, { force: true });
  return new Promise((resolve) => {
    const child = spawn(
      'npx',
      [
        ...['jest', '--selectProjects', 'unit', '--silent'],
        ...['--json', `--outputFile=${REPORT}`, '--forceExit', '--testTimeout=3600000'],
        ...[`--maxWorkers=${availableParallelism()}`, '--runTestsByPath', ...some],
      ],
      {
        stdio: 'ignore',
        detached: true,
        env: {
          ...process.env,
          NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
          VERIDON_SEED: String(seed),
          VERIDON_RUNS: String(runs),
          VERIDON_EXPLORE: '1',
        },
      },
    );
    const over = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), Math.max(1, until - Date.now()));
    child.on('close', () => {
      clearTimeout(over);
      resolve(existsSync(REPORT));
    });
  });
}

mkdirSync('.build', { recursive: true });
console.log(
  `${files.length} files with properties, ${runs} times their cases, ${minutes} minutes, seed ${firstSeed}`,
);
const found = new Map();
let [rounds, tests, queue] = [0, 0, []];
while (Date.now() < until) {
  if (queue.length === 0) {
    queue = files
      .map((file) => [random(), file])
      .sort(([a], [b]) => a - b)
      .map(([, file]) => file);
    rounds++;
  }
  const some = queue.splice(0, AT_ONCE);
  const seed = random() >>> 1;
  if (!(await explore(some, seed))) break;
  const { testResults } = JSON.parse(readFileSync(REPORT, 'utf8'));
  for (const { name, assertionResults, message } of testResults) {
    const file = name.replace(`${process.cwd()}/`, '');
    if (assertionResults.length === 0 && message) report(file, '(the file itself)', seed, message);
    for (const { status, fullName, failureMessages } of assertionResults) {
      if (status === 'passed') tests++;
      if (status === 'failed') report(file, fullName, seed, failureMessages.join('\n'));
    }
  }
}

function report(file, name, seed, message) {
  const key = `${file} ${name}`;
  if (found.has(key)) return;
  const plain = stripVTControlCharacters(message);
  const path = /path: "([^"]*)"/.exec(plain)?.[1];
  found.set(key, seed);
  console.log(`\nFAILED ${file}\n  ${name}\n  seed ${seed}${path === undefined ? '' : `, path ${path}`}`);
  console.log(plain.slice(0, 1500).replaceAll(/^/gm, '  | '));
  console.log(`  Again: VERIDON_EXPLORE=1 VERIDON_SEED=${seed} VERIDON_RUNS=${runs} npm test -- ${file}`);
}

console.log(
  `\n${tests} tests passed in ${rounds} rounds over ${files.length} files; ${found.size} failed. Seed ${firstSeed}.`,
);
process.exit(found.size > 0 ? 1 : 0);
