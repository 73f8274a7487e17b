export * from './choose';
export * from './entry';
export * from './isles-ledger';
export * from './relay-register';
export * from './source';
export * from './spelling';
export * from './station';
