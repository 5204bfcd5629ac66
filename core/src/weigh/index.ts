export * from './axle';
export * from './cost';
export * from './quote';
export * from './weigh';
