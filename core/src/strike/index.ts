export * from './joint-spring';
export * from './linear';
export type { ShellModel } from './model';
export * from './plate-flats';
export * from './shell-case';
export { readShellCase, type ShellAnswer, type ShellCase } from './shell-format';
export * from './strike';
export * from './strike-wish';
