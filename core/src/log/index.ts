export * from './due';
export * from './entry';
export * from './preload';
export * from './search';
