export * from './check';
export * from './finding';
export { RULES } from './rules';
