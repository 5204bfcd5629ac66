export * from './between';
export * from './commands';
export * from './instead';
