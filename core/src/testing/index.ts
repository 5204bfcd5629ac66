export * from './brackets';
export * from './clamped-square';
export * from './hung-plates';
export * from './mutate';
export * from './reading';
export * from './said';
export * from './scanned';
export * from './surveyed';
