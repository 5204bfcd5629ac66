export * from './csv';
export * from './dxf-in';
export * from './lists';
export * from './rig-tables';
export * from './table';
