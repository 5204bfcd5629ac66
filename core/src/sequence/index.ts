export * from './cautions';
export * from './order';
export * from './sequence';
export * from './step';
