// npm test: installs what is missing, then formatting, lint with the import rules, types, unit tests, build and browser journeys.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { build, installPackages, wantChromium } from './prepare.mjs';

installPackages();
const chromium = wantChromium();
// PGlite loads parts of itself with import(), which Jest allows with this option only.
const NODE_OPTIONS = '--experimental-vm-modules --no-warnings';
const env = {
  ...process.env,
  NODE_OPTIONS,
  VERIDON_CHROMIUM: chromium,
  NEXT_TELEMETRY_DISABLED: '1',
  CI: 'true',
};
const failedSteps = [];
let passed = 0;
let failed = 0;

function step(name, command, args) {
  console.log(`\n— ${name}`);
  const { status } = spawnSync(command, args, { stdio: 'inherit', env });
  if (status !== 0) failedSteps.push(name);
  return status === 0;
}

function check(name, command, args) {
  if (step(name, command, args)) passed++;
  else failed++;
}

mkdirSync('.build', { recursive: true });
function jest(name, project) {
  const report = `.build/${project}.json`;
  rmSync(report, { force: true });
  step(name, 'npx', [
    'jest',
    '--selectProjects',
    project,
    '--json',
    // A test that leaves something open must not keep the rest from being counted.
    '--forceExit',
    `--outputFile=${report}`,
    // Half of the time of unit tests is waited for processes and lines of their own.
    ...(project === 'journeys'
      ? ['--runInBand']
      : ['--testTimeout=20000', `--maxWorkers=${Math.max(2, availableParallelism() - 1)}`]),
  ]);
  if (!existsSync(report)) return void failed++;
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  passed += numPassedTests;
  failed += numFailedTests + numRuntimeErrorTestSuites;
}

check('Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
check('Lint and import rules', 'npx', ['eslint', '.', '--max-warnings', '0']);
check('Types', 'npx', ['tsc', '--noEmit']);
jest('Unit tests', 'unit');
await build();
jest('Browser journeys', 'journeys');

if (failedSteps.length > 0) console.log(`\nFailed: ${failedSteps.join(', ')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failedSteps.length > 0 || failed > 0 || passed === 0 ? 1 : 0);
