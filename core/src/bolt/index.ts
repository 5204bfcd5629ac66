export * from './drill';
export * from './elements';
export * from './heads';
export * from './joint';
export * from './length';
export * from './lists';
export * from './strength';
export * from './thread';
