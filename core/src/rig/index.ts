export * from './edit';
export * from './member-name';
export * from './present';
export * from './rig';
export * from './scan';
export * from './start';
export * from './survey';
