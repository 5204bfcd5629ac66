export * from './change';
export * from './crossbars';
export * from './details';
export * from './lowered';
export * from './panels';
export * from './snap';
