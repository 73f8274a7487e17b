export * from './byte-map';
export * from './image';
export * from './recognise';
export * from './to-plan';
export type { FieldValue } from '../format';
