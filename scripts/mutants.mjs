// npm run mutants [-- --minutes 12 --seed 1 --part core --only organise]: puts small faults into a seeded sample of places, one at a time, and says
// which of them no test noticed. Not part of npm test. Parts: core, server (with the stores of the screens), tables.
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { join, resolve } from 'node:path';
import { installPackages, prepareDatabase } from './prepare.mjs';

installPackages();
const emptyDatabase = prepareDatabase();
const argument = (name, otherwise) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : process.argv[at + 1];
};
const minutes = Number(argument('minutes', 12));
const seed = Number(argument('seed', 1));
const parts = argument('part', 'tables,core,server').split(',');
/** Files whose path has this in it, where the sample is to be of those alone. */
const only = argument('only', '');

let state = seed >>> 0;
const random = () => {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = Math.imul(state ^ (state >>> 15), state | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
const shuffled = (list) =>
  list
    .map((one) => [random(), one])
    .sort(([a], [b]) => a - b)
    .map(([, one]) => one);

const TABLES = [
  'allocation',
  'addition',
  'band-plan',
  'distress',
  'licence-free',
  'marine',
  'shift',
  'tone',
  'code',
  'step',
  'mode',
].map((name) => `src/core/radio/${name}.ts`);
const files = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path);
    return /\.ts$/.test(name) && !/\.test\.|\.d\.ts$|\/index\.ts$|^index\.ts$/.test(name) ? [path] : [];
  });
const PLACES = {
  core: () =>
    files('src/core').filter((path) => !TABLES.slice(0, 1).includes(path) && !path.includes('/models/tern')),
  server: () => [
    ...files('src/server'),
    ...['views/plan/plan-store', 'views/plan/selection', 'views/plan/plan-views', 'workers/plan-work'].map(
      (path) => `src/${path}.ts`,
    ),
  ],
};

const results = [];

/** Every figure of the tables a step up, one at a time, in a copy of the core; the test of the tables must see it. */
function tables(until) {
  const sandbox = resolve('.build/tables');
  rmSync(sandbox, { recursive: true, force: true });
  mkdirSync(join(sandbox, 'src'), { recursive: true });
  for (const folder of ['src/core', 'scripts']) cpSync(folder, join(sandbox, folder), { recursive: true });
  for (const name of [
    'jest.config.mjs',
    'jest.mutants.config.mjs',
    'package.json',
    'tsconfig.json',
    'next.config.mjs',
  ])
    cpSync(name, join(sandbox, name));
  symlinkSync(resolve('node_modules'), join(sandbox, 'node_modules'));
  const faults = shuffled(
    TABLES.flatMap((path) => {
      const text = readFileSync(path, 'utf8');
      // Figures of the tables alone: what stands in comments, docstrings and template texts is no table.
      const blank = text.replace(/\/\*[\s\S]*?\*\/|\/\/.*|note: ('[^']*'|`[^`]*`)|'[A-Z][^']*\.'/g, (found) =>
        ' '.repeat(found.length),
      );
      const end = blank.search(/\n(export )?function (?!amateur|other|span)/);
      return [
        ...blank
          .slice(0, end < 0 ? undefined : end)
          .matchAll(/(?<![\w.$])\d[\d_]*(\.\d+)?(?![\w.]| m'| cm'| mm')/g),
      ]
        .map((match) => ({ path, at: match.index, figure: match[0] }))
        .filter(
          ({ at }) =>
            !/(const \w+ = |\* |Math|Math\.round\(\w+ )$/.test(text.slice(Math.max(0, at - 24), at)),
        );
    }),
  );
  const passes = () =>
    spawnSync(
      'npx',
      ['jest', '-c', 'jest.mutants.config.mjs', '--testPathPatterns', 'core/radio/tables', '--silent'],
      {
        cwd: sandbox,
        stdio: 'ignore',
        env: { ...process.env, NODE_OPTIONS: '--experimental-vm-modules --no-warnings' },
      },
    ).status === 0;
  // A test that fails without any fault notices nothing.
  if (!passes()) throw new Error('The test of the tables does not pass before any fault.');
  let noticed = 0;
  let tried = 0;
  const alive = [];
  for (const { path, at, figure } of faults) {
    if (Date.now() > until) break;
    const text = readFileSync(path, 'utf8');
    const moved = figure.includes('.')
      ? String(Number(figure) + 1)
      : String(Number(figure.replaceAll('_', '')) + 1).padStart(figure.length, '0');
    writeFileSync(join(sandbox, path), text.slice(0, at) + moved + text.slice(at + figure.length));
    const unnoticed = passes();
    writeFileSync(join(sandbox, path), text);
    tried++;
    if (!unnoticed) noticed++;
    else alive.push(`${path}:${text.slice(0, at).split('\n').length} ${figure} -> ${moved}`);
  }
  rmSync(sandbox, { recursive: true, force: true });
  results.push({ part: 'tables', tried, noticed, alive });
}

/** Stryker over windows of lines, a few at a time, until the time is over. */
function mutate(part, until) {
  const windows = shuffled(
    PLACES[part]()
      .filter((path) => path.includes(only))
      .flatMap((path) => {
        const lines = readFileSync(path, 'utf8').split('\n').length;
        return Array.from(
          { length: Math.ceil(lines / 6) },
          (_, n) => `${path}:${n * 6 + 1}-${Math.min(lines, n * 6 + 6)}`,
        );
      }),
  );
  let tried = 0;
  let noticed = 0;
  const alive = [];
  const perRun = 8;
  for (let from = 0; from < windows.length && Date.now() < until; from += perRun) {
    rmSync('.build/mutants.json', { force: true });
    spawnSync('npx', ['stryker', 'run', '--mutate', windows.slice(from, from + perRun).join(',')], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        VERIDON_MUTANTS: part,
        VERIDON_EMPTY_DATABASE: emptyDatabase,
        NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      },
    });
    let report;
    try {
      report = JSON.parse(readFileSync('.build/mutants.json', 'utf8'));
    } catch {
      console.log(
        `Not tried, since the tests did not pass before any fault: ${windows.slice(from, from + perRun).join(', ')}`,
      );
      continue;
    }
    for (const [path, { mutants, source }] of Object.entries(report.files))
      for (const { status, location, mutatorName, replacement } of mutants) {
        if (!['Killed', 'Timeout', 'Survived', 'NoCoverage'].includes(status)) continue;
        tried++;
        if (status === 'Killed' || status === 'Timeout') noticed++;
        else {
          const line = source.split('\n')[location.start.line - 1].trim();
          const words = `${path}:${location.start.line} ${mutatorName}: ${line.slice(0, 90)} -> ${(replacement ?? '').replace(/\s+/g, ' ').slice(0, 60)}`;
          alive.push(words);
          console.log(`  nobody noticed  ${words}`);
        }
      }
    console.log(`${part}: ${noticed} of ${tried} noticed so far`);
  }
  results.push({ part, tried, noticed, alive });
}

mkdirSync('.build', { recursive: true });
const each = (minutes * 60_000) / parts.length;
for (const part of parts) {
  const until = Date.now() + each;
  if (part === 'tables') tables(until);
  else mutate(part, until);
}
for (const { part, tried, noticed, alive } of results) {
  console.log(
    `\n${part}: ${noticed} of ${tried} small faults noticed, ${((100 * noticed) / Math.max(1, tried)).toFixed(1)}% (seed ${seed})`,
  );
  for (const one of alive) console.log(`  nobody noticed  ${one}`);
}
