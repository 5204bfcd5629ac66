export * from './best-build';
export * from './hardware-change';
export * from './ladder';
export * from './measure-matters';
export * from './next-sheets';
export * from './option-effect';
export * from './phase-report';
export * from './profile';
