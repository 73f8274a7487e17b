export * from './choose';
export * from './entry';
export * from './source';
export * from './spelling';
