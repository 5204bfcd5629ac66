export * from './bend';
export * from './facets';
export * from './fold';
export * from './openings';
