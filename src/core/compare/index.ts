export * from './besides';
export * from './contents';
export * from './states';
