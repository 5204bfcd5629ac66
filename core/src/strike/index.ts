export * from './joint-spring';
export * from './plate-flats';
export * from './shell-case';
export * from './strike';
