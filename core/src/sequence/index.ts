export * from './cautions';
export * from './moves';
export * from './order';
export * from './sequence';
export * from './step';
