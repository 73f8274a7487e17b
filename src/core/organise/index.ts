export * from './rules';
export * from './scan';
export * from './set-ups';
export * from './sides';
