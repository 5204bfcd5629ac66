export * from './chance';
export * from './play';
export * from './remedies';
export * from './report';
export * from './start';
export * from './words';
