import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });
const shared = {
  testEnvironment: 'node',
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  modulePathIgnorePatterns: ['<rootDir>/.next/', '<rootDir>/.data/', '<rootDir>/.build/'],
};

export default async () => ({
  projects: [
    await withNext({ ...shared, displayName: 'unit', testMatch: ['<rootDir>/src/**/*.test.ts'] })(),
    await withNext({
      ...shared,
      displayName: 'journeys',
      testMatch: ['<rootDir>/e2e/**/*.test.ts', '<rootDir>/attack/**/*.test.ts'],
    })(),
  ],
});
