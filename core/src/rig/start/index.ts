export * from './measures';
export * from './start';
