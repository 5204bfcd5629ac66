export * from './access';
export * from './service';
export * from './service-steps';
