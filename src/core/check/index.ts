export * from './check';
export * from './finding';
export * from './groups';
export * from './neighbour';
export { RULES } from './rules';
