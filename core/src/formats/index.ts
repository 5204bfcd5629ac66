export * from './csv';
export * from './dxf-in';
export * from './lists';
export * from './pattern-files';
export * from './rig-tables';
export * from './table';
