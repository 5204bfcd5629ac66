export * from './book';
export type { Side } from './drawings';
export * from './font';
export type { BookFonts } from './sheet';
export * from './template';
