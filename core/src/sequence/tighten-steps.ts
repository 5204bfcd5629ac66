import { ELEMENTS, HAND_TOOLS, type ResolvedJoint, wrenchCode, wrenchesFor } from '../bolt';
import type { FoldedPanel } from '../fold';
import { distance2, type Vec2 } from '../geometry';
import { panelWord } from '../plan';
import { sentence } from '../units';
import { CAUTIONS } from './cautions';
import { addTools, type Job, spotOf, toolsOf } from './job';
import { tighteningOrder } from './order';
import { PASS_SHARES, roundOf, settingsOf } from './settings';

/** An assembly wider than this, mm, or of more than one plate is pulled askew from one corner: common practice, no source. */
const WIDE = 900;

/** Tapped sheet and stainless want no impact wrench either: the one strips, the other galls. Common practice, no source. */
const byHandOnly = (j: ResolvedJoint): boolean =>
  isSoft(j) ||
  !j.nut ||
  j.nut.kind === 'threaded' ||
  j.nut.kind === 'nut-plate' ||
  j.nut.kind === 'nut-strip' ||
  j.joint.fastener.finish === 'stainless';

export const isSoft = (j: ResolvedJoint): boolean =>
  j.nut !== undefined && ELEMENTS[j.nut.kind].soft === true;

const middleOf = (joints: readonly ResolvedJoint[]): Vec2 => [
  joints.reduce((s, j) => s + j.at[0], 0) / joints.length,
  joints.reduce((s, j) => s + j.at[1], 0) / joints.length,
];

/** How the two nuts of a strap are brought up: common practice, no source. */
function strapHow(joints: readonly ResolvedJoint[]): readonly string[] {
  const straps = joints.filter(j => j.nut?.kind === 'axle-strap').map(j => j.id);
  return straps.length === 0
    ? []
    : [
        `${straps.join(', ')}: both nuts of the strap in turn, half a turn each, until each is at its torque. The same length of thread shows past both.`,
      ];
}

/** A part that is tightened as one: a plate with the bolts that are its own, or a crossbar. */
export interface Tightened {
  readonly id: string;
  /** as it is called at the front of a title */
  readonly name: string;
  readonly panels: readonly string[];
  readonly joints: readonly ResolvedJoint[];
}

/** A plate as what is tightened. */
export const plateTightened = (p: FoldedPanel, joints: readonly ResolvedJoint[]): Tightened => ({
  id: p.panel.id,
  name: sentence(panelWord(p.panel)),
  panels: [p.panel.id],
  joints,
});

/**
 * Parts of a group in the order in which a round goes over them: from the one in the middle of all the bolts, where the group is held
 * stiffest, outward (RCSC, snug-tightening: from the most rigid part of the joint).
 */
export function roundOrder(group: readonly Tightened[]): readonly Tightened[] {
  const all = group.flatMap(p => p.joints);
  if (all.length === 0) return [];
  const middle = middleOf(all);
  const far = (p: Tightened): number => distance2(middleOf(p.joints), middle);
  return group.filter(p => p.joints.length > 0).sort((a, b) => far(a) - far(b) || (a.id < b.id ? -1 : 1));
}

/**
 * The rounds of a group at about 30, 60 and 100 % and a last one until nothing turns (ASME PCC-1): every round goes over all plates in one
 * order, each bolt at its own setting. Gives back the ids of the last round; `needs` where nothing is to be tightened.
 */
export function tightenSteps(
  job: Job,
  group: readonly Tightened[],
  needs: readonly string[],
  tag: string,
): readonly string[] {
  const { method } = job.doc.plan;
  const parts = roundOrder(group);
  const all = parts.flatMap(p => p.joints);
  const settings = settingsOf(all);
  // what the tool roll holds for any bolt serves for another's first rounds
  const wrenches = wrenchesFor(job.joints.map(j => j.torqueNm));
  const ys = all.map(j => j.at[1]);
  const several = parts.length > 1;
  const wide = several || Math.max(...ys) - Math.min(...ys) > WIDE;
  const rounds = PASS_SHARES.length;
  let previous = needs;
  PASS_SHARES.forEach((share, i) => {
    const pass = i + 1;
    const made: string[] = [];
    for (const { id, name, panels, joints: mine } of parts) {
      const of = new Map(mine.map(j => [j.id, roundOf(settings.get(j.id) as number, pass, wrenches)]));
      const turned = mine.filter(j => of.get(j.id) !== 'passed over');
      if (turned.length === 0) continue;
      const byHand = turned.filter(j => of.get(j.id) === 'by hand').map(j => j.id);
      const set = turned.flatMap(({ id: joint }) => {
        const r = of.get(joint);
        return typeof r === 'object' ? [{ joint, ...r }] : [];
      });
      const torques = Object.fromEntries(set.map(({ joint, nm }) => [joint, nm]));
      const wrenchOf = Object.fromEntries(
        set.flatMap(({ joint, wrench }) => (wrench ? [[joint, wrenchCode(wrench)]] : [])),
      );
      const least = Math.min(...Object.values(torques));
      const soft = turned.some(isSoft);
      const gives = panels.some(x => job.panels.find(p => p.panel.id === x)?.material.family === 'plastic');
      const final = pass === rounds;
      const never = method.drive === 'hand-only' || turned.some(byHandOnly) || wide || i > 0;
      const allByHand = byHand.length === turned.length;
      made.push(
        job.add(
          {
            id: `tighten-${id}-${pass}${tag}`,
            stage: 'tighten',
            title: final
              ? gives
                ? `${name}: one more round at full torque`
                : `${name}: repeat at full torque until no bolt moves`
              : allByHand
                ? `${name}: snug by hand`
                : `${name}: tighten to ${Math.round(share * 100)} %`,
            why: final
              ? gives
                ? 'Plastic creeps under the bolts: once more at full torque, then again after a day. Do not repeat until nothing moves.'
                : 'Each bolt loosens its neighbors a little.'
              : several
                ? `From the middle out, side to side, and ${parts.map(p => p.name.replace(/^(Plate|Bracket) /, w => w.toLowerCase())).join(', ')} in turn, so neither side lifts.`
                : 'From the middle out, side to side, so it pulls up flat.',
            hows: [
              ...strapHow(turned),
              ...(byHand.length > 0
                ? [
                    `${allByHand ? 'All of them' : byHand.join(', ')}: snug by hand, as tight as one hand on an ordinary wrench makes it. No torque wrench on the roll reads ${Math.round(share * 100)} % of full torque.`,
                  ]
                : []),
              ...(turned.length < mine.length
                ? [
                    `${mine
                      .filter(j => !turned.includes(j))
                      .map(j => j.id)
                      .join(
                        ', ',
                      )}: leave snug this time: no torque wrench on the roll reads ${Math.round(share * 100)} % of full torque. The next round brings them to full torque.`,
                  ]
                : []),
            ],
            panels,
            joints: tighteningOrder(turned.map(spotOf)),
            ...(Object.keys(torques).length > 0 ? { torqueNm: least, torques } : {}),
            ...(Object.keys(wrenchOf).length > 0 ? { wrenches: wrenchOf } : {}),
            ...(byHand.length > 0 ? { byHand } : {}),
            pass,
            passes: rounds,
            share,
            needs: previous,
            tools: addTools(toolsOf(turned, HAND_TOOLS), Object.values(wrenchOf)),
            cautions: [
              CAUTIONS.maker,
              ...(soft ? [CAUTIONS.spins] : []),
              ...(method.drive === 'impact-then-hand' || turned.some(byHandOnly) ? [CAUTIONS.noImpact] : []),
            ],
            impact: never ? 'never' : 'run-in',
          },
          turned.length,
        ),
      );
    }
    if (made.length > 0) previous = made;
  });
  return previous;
}
