import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });
const shared = {
  cacheDirectory: '<rootDir>/.build/jest',
  testEnvironment: 'node',
  setupFilesAfterEnv: ['<rootDir>/scripts/jest-setup.cjs'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  modulePathIgnorePatterns: ['<rootDir>/.next/', '<rootDir>/.data/', '<rootDir>/.build/'],
};

/** Ends a test that hangs, and measures nothing: how long a test takes is the machine's affair. */
const HANG_MS = 300_000;

export default async () => ({
  testTimeout: HANG_MS,
  globalSetup: './scripts/jest-start.mjs',
  testSequencer: './scripts/jest-sequencer.mjs',
  projects: [
    await withNext({ ...shared, displayName: 'unit', testMatch: ['<rootDir>/src/**/*.test.ts'] })(),
    await withNext({
      ...shared,
      displayName: 'journeys',
      testMatch: ['<rootDir>/e2e/**/*.test.ts', '<rootDir>/attack/**/*.test.ts'],
    })(),
  ],
});
