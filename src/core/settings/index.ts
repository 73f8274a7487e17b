export * from './setting.schema';
export * from './values';
