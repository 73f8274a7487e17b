import all from './jest.config.mjs';

/** The unit tests as Stryker runs them; for faults in the core its own tests alone, and those of the screens, which are quick. */
export default async () => {
  const { projects } = await all();
  const core = ['<rootDir>/src/core/**/*.test.ts', '<rootDir>/src/views/**/*.test.ts'];
  return { ...projects[0], ...(process.env.VERIDON_MUTANTS === 'core' && { testMatch: core }) };
};
