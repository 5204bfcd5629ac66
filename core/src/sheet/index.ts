export * from './equal';
export * from './gauge';
export * from './material';
export * from './stock';
