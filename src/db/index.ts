export { makePglite, openDatabase, openFolder, type Database, type Opened } from './open';
export type { DiskStep } from './synced-fs';
export { checkRoom, DataPlaceError, dataPlace } from './place';
export * from './schema';
