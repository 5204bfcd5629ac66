export * from './archive';
export { DatabaseFault, openStore } from './db/open';
export { Refusal, wordsOf } from './fault';
export * from './server';
