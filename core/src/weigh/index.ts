export * from './axle';
export * from './cost';
export * from './nest-totals';
export * from './quote';
export * from './rates';
export * from './weigh';
