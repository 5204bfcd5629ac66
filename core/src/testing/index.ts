export * from './mutate';
