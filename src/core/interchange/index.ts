export * from './decode';
export * from './geography';
export * from './table';
