export * from './copy';
export * from './job';
export * from './radio';
export * from './write-preview';
