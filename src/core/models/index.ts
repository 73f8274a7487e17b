export * from './face';
export * from './memory';
export * from './model';
export * from './registry';
