export { type CodecContext, type FieldValue } from './codec';
export * from './field';
export * from './format';
export * from './tables';
