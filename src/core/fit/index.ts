export * from './besides';
export * from './fit';
export * from './fitted';
export * from './obstacle';
export * from './paper';
export * from './words';
