export * from './between';
export * from './commands';
export * from './hat';
export * from './instead';
export * from './top-plate';
