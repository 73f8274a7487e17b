export * from './image';
export * from './to-plan';
export type { FieldValue } from '../format';
