import type { ResolvedJoint } from '../bolt';
import type { FoldedPanel } from '../fold';
import type { Member } from '../rig';

/** What a panel moves with: an axle or the engine, up by so much at full bump and down by so much at full droop, mm. */
export type Travel = NonNullable<Member['moves']>;

/** A panel that hangs on what moves, and whether on anything else too, which would tear it or its bolts. */
export interface Carried {
  readonly panel: string;
  readonly travel: Travel;
  /** members that it hangs on, those that move and those that do not or move with something else */
  readonly on: readonly string[];
  readonly against: readonly string[];
}

/** Members that a panel hangs on: by its own bolts, and by those of the brackets that it is bolted to. */
function membersOf(
  panel: string,
  joints: readonly ResolvedJoint[],
  panels: ReadonlySet<string>,
): readonly Member[] {
  const seen = new Set([panel]);
  const out = new Map<string, Member>();
  for (const id of seen)
    for (const j of joints) {
      if (!j.joint.panels.includes(id)) continue;
      if (j.member) out.set(j.member.id, j.member);
      // a bolt without a hole in the vehicle goes on to what it bolts together: a bracket carries, a neighbor does not
      else if (!j.mount) for (const other of j.joint.panels) if (panels.has(other)) seen.add(other);
    }
  return [...out.values()];
}

/** The panels that hang on an axle, an arm or the engine, by panel id. Source: the members that their bolts are in. */
export function carriedPanels(
  panels: readonly FoldedPanel[],
  joints: readonly ResolvedJoint[],
): ReadonlyMap<string, Carried> {
  if (!joints.some(j => j.member?.moves)) return new Map();
  const brackets = new Set(panels.filter(p => p.panel.role === 'bracket').map(p => p.panel.id));
  return new Map(
    panels.flatMap(({ panel }) => {
      const members = membersOf(panel.id, joints, brackets);
      const travel = members.find(m => m.moves)?.moves;
      if (!travel) return [];
      const same = (m: Member): boolean => m.moves?.with === travel.with;
      return [
        [
          panel.id,
          {
            panel: panel.id,
            travel,
            on: members.filter(same).map(m => m.id),
            against: members.filter(m => !same(m)).map(m => m.id),
          },
        ] as const,
      ];
    }),
  );
}
