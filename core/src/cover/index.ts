export * from './coverage';
export * from './gaps';
export * from './ground';
export * from './propose';
export * from './shadow';
export * from './shield';
export * from './solids';
