export * from './equal';
export * from './gauge';
export * from './heat';
export * from './material';
export * from './practice';
export * from './stock';
