export * from './fit';
export * from './obstacle';
