export * from './access';
export * from './service';
export * from './service-job';
export * from './service-steps';
