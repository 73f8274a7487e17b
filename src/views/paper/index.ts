export * from './paper-screen';
