export * from './change';
export * from './details';
export * from './panels';
