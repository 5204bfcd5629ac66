export * from './propose';
export * from './taken';
export type { Announced, Proposal, ProposedPlate, Wish } from './wish';
