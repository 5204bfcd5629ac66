export * from './chance';
export * from './constants';
export * from './format';
export * from './number';
export * from './parse';
export * from './result';
