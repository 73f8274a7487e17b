export * from './besides';
export * from './contents';
