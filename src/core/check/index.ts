export * from './check';
export * from './finding';
export * from './neighbour';
export { RULES } from './rules';
