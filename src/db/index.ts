export { copyLine } from './copy';
export { makePglite, openDatabase, openFolder, schemaNumber, type Database, type Opened } from './open';
export type { DiskStep } from './synced-fs.mjs';
export { checkRoom, DataPlaceError, dataPlace, roomFault } from './place.mjs';
export * from './people-schema';
export * from './schema';
export { listenOn } from './listen';
