export * from './besides';
export { differsInWords } from './channel-words';
export * from './contents';
export * from './states';
