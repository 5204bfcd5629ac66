export * from './between';
export * from './commands';
