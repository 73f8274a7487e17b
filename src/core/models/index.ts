export * from './face';
export * from './model';
export * from './registry';
