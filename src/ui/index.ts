export * from './choice';
export * from './commands';
export * from './controls';
export * from './long-list';
export * from './moment';
export * from './preference';
export * from './severity-mark';
export * from './stable';
