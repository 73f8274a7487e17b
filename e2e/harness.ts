/** What the journeys share; read world.ts first, then page.ts. */
export * from './world';
export * from './page';
export * from './plan-page';
