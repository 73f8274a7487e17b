// npm test: installs what is missing, then formatting, lint with the import rules, types, build, unit tests and browser journeys.
// npm test -- FILE… [-t NAME]: only the tests of those files, as the end of a failed run says.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { availableParallelism, freemem, tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, installPackages, prepareDatabase, wantChromium, wantPostgres } from './prepare.mjs';

const only = process.argv.slice(2);
installPackages();
const chromium = wantChromium();
const postgres = wantPostgres();
// Every data directory of a test is a copy of this one.
prepareDatabase();

/** What tests keep for a while is kept in memory where there is room for it: hundreds of databases wait for the disk ten times as long. */
function temporaryFolder() {
  const [inMemory, wanted] = ['/dev/shm', 8 * 2 ** 30];
  try {
    const { bavail, bsize } = statfsSync(inMemory);
    if (bavail * bsize >= wanted && freemem() >= wanted) return mkdtempSync(join(inMemory, 'veridon-test-'));
  } catch {
    // This machine has no such folder.
  }
  return mkdtempSync(join(tmpdir(), 'veridon-test-'));
}
const folder = temporaryFolder();
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(1));

const env = {
  ...process.env,
  TMPDIR: folder,
  // PGlite loads parts of itself with import(), which Jest allows with this option only.
  // A larger young generation (MB): lint and tests make much that is gone at once, and collecting it takes a tenth of their time.
  NODE_OPTIONS: '--experimental-vm-modules --no-warnings --max-semi-space-size=64',
  VERIDON_CHROMIUM: chromium,
  VERIDON_POSTGRES: postgres,
  NEXT_TELEMETRY_DISABLED: '1',
  CI: 'true',
};
/** Seconds that the cores of this machine have computed, and waited for their host, since it was switched on; null where it does not say. */
function machineSeconds() {
  const [user, nice, system, , , , , steal] = existsSync('/proc/stat')
    ? readFileSync('/proc/stat', 'utf8').split('\n', 1)[0].split(/\s+/).slice(1).map(Number)
    : [];
  return user === undefined ? null : { computed: (user + nice + system) / 100, waited: steal / 100 };
}
const before = machineSeconds();
const began = Date.now();
const failedSteps = [];
let passed = 0;
let failed = 0;

/** Runs a command to its end; what it prints is shown at once, or with `together` when it has ended. */
function run(command, args, together = false) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      env,
      stdio: together ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (bytes) => (output += bytes));
    child.on('error', (error) => resolve({ status: 1, output: String(error) }));
    child.on('close', (status) => resolve({ status: status ?? 1, output }));
  });
}

const seconds = () => `${Math.round((Date.now() - began) / 1000)} s`;

async function check(name, command, args) {
  const { status, output } = await run(command, args, true);
  console.log(`\n— ${name}: ${status === 0 ? 'passed' : 'failed'} (${seconds()})`);
  if (output.trim() !== '') console.log(output);
  if (status === 0) return void passed++;
  failed++;
  failedSteps.push(name);
}

async function checks() {
  // The compiler that is a program of its own takes half the time of the one that lint asks.
  await check('Types', process.execPath, [
    'node_modules/typescript-native/bin/tsc',
    '--noEmit',
    '--singleThreaded',
  ]);
  await check('Lint and import rules', 'npx', ['eslint', '.', '--max-warnings', '0']);
  await check('Formatting', 'npx', ['oxfmt', '--check']);
}

async function jest(...args) {
  const report = '.build/tests.json';
  mkdirSync('.build', { recursive: true });
  rmSync(report, { force: true });
  const { status } = await run('npx', [
    'jest',
    ...['--reporters=default', '--reporters=./scripts/jest-reporter.mjs'],
    '--json',
    `--outputFile=${report}`,
    // A test that leaves something open must not keep the rest from being counted.
    '--forceExit',
    // Tests wait for processes and lines of their own for much of their time.
    `--maxWorkers=${availableParallelism() + 1}`,
    ...args,
  ]);
  if (status !== 0) failedSteps.push('Tests');
  if (!existsSync(report)) return void failed++;
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  passed += numPassedTests;
  failed += numFailedTests + numRuntimeErrorTestSuites;
}

if (only.length > 0) {
  if (only.some((argument) => /^(e2e|attack)\//.test(argument))) await build();
  // In one process, so that what a test prints stands where it belongs.
  await jest('--runInBand', '--runTestsByPath', ...only);
} else {
  // What needs no build goes on beside it.
  const checked = checks();
  await build();
  console.log(`\n— Built (${seconds()})`);
  await Promise.all([checked, jest()]);
}

if (failedSteps.length > 0) console.log(`\nFailed: ${failedSteps.join(', ')}`);
console.log(`\nTook ${seconds()}`);
if (before) {
  // Of a machine that shares its cores with others a time alone says little.
  const { computed, waited } = machineSeconds();
  const [work, wait] = [computed - before.computed, waited - before.waited].map(Math.round);
  console.log(
    `${availableParallelism()} cores computed ${work} s in all, and waited ${wait} s for their host`,
  );
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failedSteps.length > 0 || failed > 0 || passed === 0 ? 1 : 0);
