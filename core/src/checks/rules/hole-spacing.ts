import type { ResolvedJoint } from '../../bolt';
import { distance2 } from '../../geometry';
import { plateName, type Rule, type Unsigned } from '../finding';

/** Center to center of two holes in bolt diameters: the least and the preferred, AISC 360-16 J3.3. */
export const SPACING = { least: 8 / 3, preferred: 3 } as const;
/** Room between two heads, mm; a socket's outer diameter in widths across flats and what it has on top: common practice, no source. */
const ROOM = 1;
const SOCKET = { share: 1.3, more: 3 } as const;

/** Diameter that the tool of a head takes up, mm; a key or bit goes into the head and takes no more than it. */
const toolWidth = (j: ResolvedJoint): number => {
  const washer = j.layers[1]?.kind === 'washer' ? j.layers[1].diameter : 0;
  const own = Math.max(j.head.bearing, washer);
  return j.head.flats ? Math.max(own, SOCKET.share * j.head.flats + SOCKET.more) : own;
};
const headWidth = (j: ResolvedJoint): number =>
  Math.max(j.head.bearing, j.layers[1]?.kind === 'washer' ? j.layers[1].diameter : 0);

export const holeSpacing: Rule = {
  id: 'hole-spacing',
  why: 'Holes too close together tear through; heads too close leave no room for a socket.',
  find: (facts, words) =>
    facts.panels.flatMap(p =>
      p.holes.flatMap((a, i) =>
        p.holes.slice(i + 1).flatMap((b): readonly Unsigned[] => {
          const [ja, jb] = [a, b].map(h => facts.joints.find(x => x.id === h.joint));
          if (!ja || !jb) return [];
          const apart = distance2(a.blank, b.blank);
          const d = Math.max(ja.thread.d, jb.thread.d);
          const [ha, hb] = [headWidth(ja), headWidth(jb)];
          const socket = Math.max(toolWidth(ja) + hb, toolWidth(jb) + ha) / 2 + ROOM;
          const heads = (ha + hb) / 2 + ROOM;
          const wanted = Math.max(SPACING.preferred * d, socket);
          if (apart >= wanted - 0.05) return [];
          const [severity, why] =
            apart < heads
              ? (['stop', 'their heads touch'] as const)
              : apart < SPACING.least * d - 0.05
                ? ([
                    'fix',
                    `${words.tape(SPACING.least * d)} is the least for ${ja.thread.d >= jb.thread.d ? ja.thread.size : jb.thread.size}`,
                  ] as const)
                : apart < socket
                  ? (['fix', 'a socket does not fit between them'] as const)
                  : (['note', `${words.tape(SPACING.preferred * d)} is better`] as const);
          return [
            {
              severity,
              where: 'cover',
              about: [p.panel.id, ja.id, jb.id],
              text: `${plateName(facts, p.panel.id)}: bolts ${ja.id} and ${jb.id} are ${words.tape(apart)} apart; ${why}.`,
              remedy: 'Delete one of them, or use smaller bolts or other holes.',
            },
          ];
        }),
      ),
    ),
};
