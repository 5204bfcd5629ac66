export * from './edit';
export * from './present';
export * from './rig';
export * from './start';
