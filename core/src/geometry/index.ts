export * from './convex';
export * from './frame';
export * from './polygon';
export * from './region';
export * from './vector';
