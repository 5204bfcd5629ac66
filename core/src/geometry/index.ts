export * from './convex';
export * from './factor';
export * from './frame';
export * from './polygon';
export * from './region';
export * from './vector';
