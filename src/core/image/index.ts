export { type FieldValue } from './codec';
export * from './image';
