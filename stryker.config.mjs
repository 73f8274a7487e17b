/** Small faults in the code, to see which of them the tests notice; scripts/mutants.mjs says where. */
export default {
  testRunner: 'jest',
  testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
  coverageAnalysis: 'perTest',
  // What runs once when a file is loaded is in every test; the tables, which are most of it, have a part of their own.
  ignoreStatic: true,
  jest: { configFile: 'jest.mutants.config.mjs', enableFindRelatedTests: true },
  reporters: ['json'],
  jsonReporter: { fileName: '.build/mutants.json' },
  tempDirName: '.build/stryker',
  cleanTempDir: 'always',
  incremental: false,
  concurrency: 2,
  timeoutMS: 15_000,
  // All tests of core take some minutes, on a busy machine longer.
  dryRunTimeoutMinutes: 30,
  logLevel: 'error',
  ignorePatterns: ['.next', '.data', '.build', 'docs/screenshots', 'e2e', 'attack'],
  // Texts for people are left out: what they say is read by people.
  mutator: { excludedMutations: ['StringLiteral'] },
};
