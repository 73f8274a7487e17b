export * from './copy';
export * from './copy-comparison';
export * from './job';
export * from './live';
export * from './radio';
export * from './several';
export * from './write-preview';
