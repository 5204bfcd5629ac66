export * from './commands';
export * from './flood';
export * from './gap';
export * from './heights';
export * from './horn';
export * from './pack';
export * from './views';
