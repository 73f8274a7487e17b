export * from './heard';
