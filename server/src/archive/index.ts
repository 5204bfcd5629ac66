export * from './collect';
export * from './pack';
export * from './restore';
