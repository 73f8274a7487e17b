export * from './cells';
export * from './channel';
export * from './edits';
export * from './ids';
export * from './names';
export * from './plan';
export * from './same';
export * from './slots';
