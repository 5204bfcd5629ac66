export * from './adjust';
export * from './camera';
export * from './chi-square';
export * from './homography';
export * from './net';
export * from './next';
export * from './read';
export type { State } from './solve';
export * from './words';
