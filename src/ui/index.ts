export * from './api';
export * from './commands';
export * from './controls';
export * from './preference';
export * from './severity-mark';
export * from './stable';
