export * from './bin';
export * from './collect';
export * from './pack';
export * from './restore';
