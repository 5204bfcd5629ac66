export * from './carried';
export * from './facts';
