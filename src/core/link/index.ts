export * from './driver';
export * from './frame';
export * from './host';
export * from './ident';
