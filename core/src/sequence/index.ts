export * from './cautions';
export * from './hang-order';
export * from './moves';
export * from './nut-reach';
export * from './order';
export * from './sequence';
export * from './step';
