export * from './present';
export * from './rig';
