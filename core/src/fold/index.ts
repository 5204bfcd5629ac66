export * from './bend';
export * from './brake';
export * from './facets';
export * from './fold';
export * from './openings';
export * from './pattern';
export * from './solid';
