export * from './frame';
export * from './host';
export * from './ident';
