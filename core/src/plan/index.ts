export * from './blank';
export * from './document';
export * from './edit';
export * from './faults';
export * from './json-schema';
export * from './plan';
export * from './schema';
export * from './select';
