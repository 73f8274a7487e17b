export * from './besides';
export { POLITENESS_WORDS, recordsHeld, type RecordsHeld } from './digital';
export * from './fit';
export * from './fitted';
export * from './obstacle';
export * from './paper';
export * from './words';
