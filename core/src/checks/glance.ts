import { gatherFacts } from '../derive';
import { facetInSpace } from '../fold';
import type { Polygon } from '../geometry';
import type { PlanDocument } from '../plan';
import { check } from './check';

/** What the list of plans shows of one: its underside from below, how heavy it is, what is found. Outlines in mm, x to the rear, y right. */
export interface Glance {
  readonly members: readonly Polygon[];
  readonly components: readonly { readonly kind: string; readonly outline: Polygon }[];
  /** a plate's flats and flanges */
  readonly plates: readonly { readonly mark: string; readonly outlines: readonly Polygon[] }[];
  /** where the axles are, mm, and half the track */
  readonly wheels: { readonly front: number; readonly rear: number; readonly half: number };
  readonly netKg: number;
  readonly findings: { readonly stop: number; readonly fix: number; readonly note: number };
}

/** Outlines to the whole mm: a picture as large as a thumb shows no more. */
const rounded = (p: readonly (readonly number[])[]): Polygon =>
  p.map(([x = 0, y = 0]) => [Math.round(x), Math.round(y)] as const);

/** A glance at a plan's active build. */
export function glanceOf(document: PlanDocument): Glance {
  const facts = gatherFacts(document);
  const findings = check(facts);
  const count = (s: string): number => findings.filter(f => f.severity === s).length;
  const { rig } = document;
  return {
    members: facts.rig.members.map(m => rounded(m.footprint)),
    components: facts.rig.components.map(c => ({ kind: c.kind, outline: rounded(c.footprint) })),
    plates: facts.plates.map(p => ({
      mark: p.panel.mark,
      outlines: p.facets.map(f => rounded(facetInSpace(f))),
    })),
    wheels: { front: 0, rear: rig.wheelbase, half: rig.trackWidth / 2 },
    netKg: facts.weight.netKg,
    findings: { stop: count('stop'), fix: count('fix'), note: count('note') },
  };
}
