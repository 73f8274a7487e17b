export * from './alike';
export * from './count';
export * from './facts';
export * from './many';
export * from './new-rows';
export * from './pasted';
export * from './replace';
