import all from './jest.config.mjs';

/** The unit tests alone, as Stryker runs them. */
export default async () => {
  const { projects } = await all();
  return projects[0];
};
