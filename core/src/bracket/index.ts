export * from './between';
export * from './commands';
export * from './hat';
export * from './instead';
