export * from './change';
export * from './details';
export * from './lowered';
export * from './panels';
export * from './snap';
