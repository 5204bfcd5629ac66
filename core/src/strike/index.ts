export * from './joint-spring';
export * from './linear';
export type { ShellModel } from './model';
export * from './plate-flats';
export * from './shell-case';
export * from './strike';
