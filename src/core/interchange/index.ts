export * from './decode';
export * from './file';
export * from './geography';
export * from './places';
export * from './table';
