export * from './check';
export * from './finding';
export * from './finding.schema';
export * from './groups';
export * from './mends-together';
export * from './neighbour';
export { RULES } from './rules';
