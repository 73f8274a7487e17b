export * from './block';
export * from './block-frame';
export * from './card';
export * from './driver';
export * from './frame';
export * from './host';
export * from './ident';
export * from './scan';
