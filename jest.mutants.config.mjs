import all from './jest.config.mjs';

/**
 * The unit tests as Stryker runs them: for each part its own tests and those of the screens, which are quick. With faults in
 * its code the property over every place of the line would take longer than it may.
 */
const MATCH = {
  core: ['<rootDir>/src/core/**/*.test.ts', '<rootDir>/src/views/**/*.test.ts'],
  server: ['<rootDir>/src/server/**/*.test.ts', '<rootDir>/src/views/**/*.test.ts'],
};

export default async () => {
  const { projects, testTimeout, globalSetup } = await all();
  const part = process.env.VERIDON_MUTANTS;
  const testMatch = MATCH[part];
  // Only the server starts readers, and only its copy of the sources has them.
  return {
    ...projects[0],
    testTimeout,
    ...(testMatch && { testMatch }),
    ...(part === 'server' && { globalSetup }),
  };
};
