export * from './besides';
export { recordsHeld, type RecordsHeld } from './digital';
export * from './fit';
export * from './fitted';
export * from './obstacle';
export * from './paper';
export { settingFromRadio } from './setting-records';
export * from './words';
