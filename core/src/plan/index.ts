export * from './document';
export * from './faults';
export * from './json-schema';
export * from './plan';
export * from './schema';
export * from './select';
