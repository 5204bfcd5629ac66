export * from './change';
export * from './details';
export * from './panels';
export * from './snap';
