export * from './contents';
