export * from './besides';
export { recordsHeld, type RecordsHeld } from './digital';
export * from './fit';
export * from './fitted';
export * from './obstacle';
export * from './paper';
export * from './words';
