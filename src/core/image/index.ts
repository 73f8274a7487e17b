export * from './image';
export type { FieldValue } from '../format';
