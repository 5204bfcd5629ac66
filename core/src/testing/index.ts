export * from './mutate';
export * from './said';
