export * from './find';
export * from './person.schema';
export * from './read-roll';
export * from './choose';
export * from './key-ups';
export * from './rank';
