export * from './bring-in';
export * from './move';
export * from './offers';
export * from './rules';
export * from './scan';
export * from './set-ups';
export * from './side-by-side';
export * from './sides';
