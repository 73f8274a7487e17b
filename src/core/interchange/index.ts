export * from './decode';
export * from './file';
export * from './geography';
export * from './heard-log';
export * from './places';
export * from './table';
