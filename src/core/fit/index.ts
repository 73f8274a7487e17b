export * from './besides';
export { ANSWER_WORDS, POLITENESS_WORDS } from './digital';
export * from './fit';
export * from './fitted';
export * from './obstacle';
export * from './paper';
export * from './words';
