export * from './choose';
export * from './entry';
