export * from './byte-map';
export * from './image';
export * from './people-memory';
export * from './recognise';
export * from './settings';
export * from './settings.schema';
export * from './to-plan';
export * from './unit';
export type { FieldValue } from '../format';
