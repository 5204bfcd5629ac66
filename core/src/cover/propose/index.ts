export * from './propose';
export * from './span';
export type { Proposal, ProposedPlate, Wish } from './wish';
