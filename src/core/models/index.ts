export * from './content.schema';
export * from './face';
export * from './fitted-channel.schema';
export * from './model';
export * from './model.schema';
export * from './registry';
export * from './unit';
