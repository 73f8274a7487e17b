export * from './find';
export * from './person.schema';
export * from './read-roll';
