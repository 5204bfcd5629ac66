export * from './axle';
export * from './cost';
export * from './weigh';
