export * from './propose';
export * from './rough';
export * from './span';
export type { Proposal, ProposedPlate, Wish } from './wish';
export { MARGIN } from './wish';
