export * from './csv';
export * from './lists';
