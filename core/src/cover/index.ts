export * from './coverage';
export * from './gaps';
export * from './ground';
export * from './rough';
export * from './shadow';
export * from './shield';
export * from './solids';
export * from './span';
