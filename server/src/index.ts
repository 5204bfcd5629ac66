export * from './server';
