export * from './axle';
export * from './cost';
export * from './quote';
export * from './rates';
export * from './weigh';
