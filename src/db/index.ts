export { openDatabase, type Database, type Opened } from './open';
export { checkRoom, DataPlaceError, dataPlace } from './place';
export * from './schema';
