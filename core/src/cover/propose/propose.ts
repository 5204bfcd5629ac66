import { fold } from '../../fold';
import { freshId, inPlan, type Joint, type PlanDocument, presentOf, remarked, type Seam } from '../../plan';
import type { Mount, PresentRig } from '../../rig';
import { MATERIALS } from '../../sheet';
import { coverage } from '../coverage';
import { type Ends, type Run, runOf, slopeAt } from './heights';
import { type Lane, lanesOf } from './lanes';
import { holesFor, plateOf, proposedJoint } from './plate';
import { type Station, stationsOf } from './stations';
import { MAX_SPACER, OVERLAP, type Proposal, type ProposedPlate, ROOM, type Wish } from './wish';

/** True when two lanes on either side of a station lap there. */
const laps = (a: Lane, b: Lane): boolean =>
  a.rear === b.front && Math.min(a.y[1], b.y[1]) - Math.max(a.y[0], b.y[0]) > 20;

/** Levels of each lane's ends: under the member, and under the plate behind it where the two lap. */
function endsOf(lanes: readonly Lane[], depth: number): readonly Ends[] {
  return lanes.map(lane => {
    const behind = lanes.some(b => laps(lane, b));
    return {
      front: lane.front.zBottom - depth,
      rear: lane.rear.zBottom - depth * (behind ? 2 : 1),
    };
  });
}

/** Lowers ends until neighbours that lap lie one sheet apart, and everything clears what is above. */
function settled(rig: PresentRig, lanes: readonly Lane[], depth: number): readonly Run[] {
  const ends = endsOf(lanes, depth).map(e => ({ ...e }));
  let runs = lanes.map((lane, i) => runOf(rig, lane, ends[i] as Ends));
  for (let round = 0; round < 12; round++) {
    let moved = false;
    lanes.forEach((a, i) =>
      lanes.forEach((b, k) => {
        if (!laps(a, b)) return;
        const [front, rear] = [runs[i] as Run, runs[k] as Run];
        // the front plate lies outside: at least one sheet below the rear plate's front end
        const bent = (OVERLAP / 2) * Math.abs(slopeAt(front, a) - slopeAt(rear, b));
        const want = rear.frontZ - depth - bent;
        const end = ends[i] as { front: number; rear: number };
        if (front.rearZ > want + 0.01 && end.rear > want + 0.01) {
          end.rear = want;
          moved = true;
        } else if (front.rearZ < want - 0.01 && front.rearRamp === 0) {
          // the front plate hangs lower: the rear one comes down to it, so that nothing gapes at the seam
          const other = ends[k] as { front: number; rear: number };
          const down = front.rearZ + depth + bent;
          if (other.front > down + 0.01) {
            other.front = down;
            moved = true;
          }
        }
      }),
    );
    if (!moved) break;
    runs = lanes.map((lane, i) => runOf(rig, lane, ends[i] as Ends));
  }
  return runs;
}

const spacerAt = (s: Station, underside: number, sheets: number): number =>
  Math.max(0, Math.round(s.zBottom - underside - sheets));

/**
 * Lays out a whole set for the chosen parts: plates from member to member, lapped front over rear, lowered on spacers
 * or ramps under what hangs lowest, opened under service points, bolted to usable holes or new ones. Says why, and
 * what it could not do. Pure and quick; the caller shows it and takes all, some or none.
 */
export function propose(doc: PlanDocument, wish: Wish): Proposal {
  const rig = presentOf(doc);
  const wanted = rig.components.filter(c => wish.components.includes(c.id) && !c.moves);
  const prevented: { about: string[]; text: string }[] = [];
  const stations = stationsOf(rig);
  const { lanes, unheld } = lanesOf(rig, stations, wanted);
  for (const c of unheld)
    prevented.push({
      about: [c.id],
      text: `${c.name}: no two crossing members hold a plate under it; add a member or a crossbar.`,
    });
  const t = wish.sheet.thickness;
  const depth = Math.max(t, ROOM);
  const runs = settled(rig, lanes, depth);
  const plastic = MATERIALS[wish.sheet.material].family === 'plastic';

  const made: Mount[] = [];
  const joints: Joint[] = [];
  const plates: { plate: Omit<ProposedPlate, 'joints' | 'newMounts'>; lane: Lane; run: Run }[] = [];
  const ids: { readonly id: string }[] = [...doc.plan.panels];
  const heldBy = new Map<string, { mount: Mount; lanes: number[] }>();
  lanes.forEach((lane, i) => {
    for (const s of [lane.front, lane.rear]) {
      const holes = holesFor(s, lane, made);
      for (const m of holes.made) if (!made.some(x => x.id === m.id)) made.push(m);
      for (const m of [...holes.mounts, ...holes.made]) {
        const held = heldBy.get(m.id) ?? { mount: m, lanes: [] };
        held.lanes.push(i);
        heldBy.set(m.id, held);
      }
    }
  });
  // a hole that lies under a lapping neighbour holds it too
  for (const held of heldBy.values())
    lanes.forEach((lane, k) => {
      const { mount } = held;
      const at = mount.member === lane.front.member.id || mount.member === lane.rear.member.id;
      if (at && !held.lanes.includes(k) && mount.at[1] > lane.y[0] + 10 && mount.at[1] < lane.y[1] - 10)
        held.lanes.push(k);
    });

  lanes.forEach((lane, i) => {
    const run = runs[i] as Run;
    const id = freshId('plate', ids);
    ids.push({ id });
    const bolts = [...heldBy.values()].filter(h => h.lanes.includes(i)).map(h => h.mount);
    const { plate, long: tooLong } = plateOf(rig, wish, lane, run, id, bolts);
    plates.push({ plate, lane, run });
    if (tooLong) prevented.push({ about: [id], text: `The ${plate.panel.name} plate ${tooLong}.` });
    const long = Math.max(spacerAt(lane.front, run.frontZ, depth), spacerAt(lane.rear, run.rearZ, depth));
    if (run.fault) prevented.push({ about: [id], text: `The ${plate.panel.name} plate: ${run.fault}.` });
    else if (long > 2 * MAX_SPACER)
      prevented.push({
        about: [id],
        text: `The ${plate.panel.name} plate follows a neighbour that hangs low: spacers of ${long} mm are more than a bolt should reach over.`,
      });
  });

  const takenJoints = [...doc.plan.joints];
  for (const { mount, lanes: under } of heldBy.values()) {
    const station = stations.find(s => s.member.id === mount.member);
    if (!station) continue;
    // outermost first: the plate that comes from the front lies outside at its rear end
    const order = [...under].sort((a, b) => {
      const front = (k: number): number => ((lanes[k] as Lane).rear === station ? 0 : 1);
      return front(a) - front(b);
    });
    const innermost = order.at(-1) as number;
    const lane = lanes[innermost] as Lane;
    const run = runs[innermost] as Run;
    const underside = lane.front === station ? run.frontZ : run.rearZ;
    const joint = proposedJoint(
      freshId('j', takenJoints),
      mount,
      order.map(k => plates[k]?.plate.panel.id as string),
      spacerAt(station, underside, depth),
      plastic,
    );
    takenJoints.push(joint);
    joints.push(joint);
  }

  const seams: Seam[] = [];
  lanes.forEach((a, i) =>
    lanes.forEach((b, k) => {
      const [front, rear] = [plates[i]?.plate.panel.id, plates[k]?.plate.panel.id];
      if (laps(a, b) && front && rear) seams.push({ front, rear, overlap: OVERLAP, outside: front });
    }),
  );

  const proposed = plates.map(({ plate }): ProposedPlate => {
    const mine = joints.filter(j => j.panels.includes(plate.panel.id));
    const fresh = made.filter(m => mine.some(j => j.mount === m.id));
    return {
      ...plate,
      joints: mine,
      newMounts: fresh,
      reasons: [
        ...plate.reasons,
        ...(fresh.length > 0
          ? [`${fresh.length} new hole${fresh.length > 1 ? 's' : ''} drilled: no usable one was near.`]
          : []),
      ],
    };
  });

  const folded = proposed.map(p => fold(p.panel, wish.sheet));
  folded.forEach(f => {
    const [w, h] = f.blank.size;
    const [long, wide] = [Math.max(...wish.maxBlank), Math.min(...wish.maxBlank)];
    if (Math.max(w, h) > long || Math.min(w, h) > wide)
      prevented.push({
        about: [f.panel.id],
        text: `The ${f.panel.name} plate needs a blank of ${Math.round(w)} × ${Math.round(h)} mm, larger than your ${Math.round(long)} × ${Math.round(wide)}: split it.`,
      });
    if (f.massKg > wish.maxLiftKg)
      prevented.push({
        about: [f.panel.id],
        text: `The ${f.panel.name} plate weighs ${f.massKg.toFixed(1)} kg, more than the ${wish.maxLiftKg} kg you lift alone: a jack, a helper or lighter sheet.`,
      });
    const low = Math.min(...f.facets.map(x => x.frame.origin[2]));
    if (wish.minClearance !== undefined && low < wish.minClearance)
      prevented.push({
        about: [f.panel.id],
        text: `The ${f.panel.name} plate hangs ${Math.round(low)} mm above the ground, less than the ${Math.round(wish.minClearance)} you want: what it guards is that low.`,
      });
  });
  for (const c of coverage(wanted, folded).components)
    if (c.fraction < 0.95 && !prevented.some(p => p.about.includes(c.id))) {
      const name = rig.components.find(x => x.id === c.id)?.name ?? c.id;
      prevented.push({
        about: [c.id],
        text: `${name} stays ${Math.round((1 - c.fraction) * 100)} % bare: ${c.fraction < 0.5 ? 'it reaches past the members that could hold a plate' : 'openings under it, or an end beyond the last member'}.`,
      });
    }
  return { plates: proposed, seams, crossbars: [], prevented };
}

/** The document with the taken plates of a proposal in it; bolts, new holes and seams come with them. */
export function proposalTaken(
  doc: PlanDocument,
  proposal: Proposal,
  wish: Wish,
  taken: readonly string[] = proposal.plates.map(p => p.panel.id),
): PlanDocument {
  const plates = proposal.plates.filter(p => taken.includes(p.panel.id));
  const here = new Set(plates.map(p => p.panel.id));
  const joints = new Map<string, Joint>();
  const mounts = new Map<string, Mount>();
  for (const p of plates) {
    for (const m of p.newMounts) mounts.set(m.id, m);
    for (const j of p.joints) {
      const panels = j.panels.filter(x => here.has(x));
      // where the inner neighbour is not taken its sheet is missing from the stack: the spacer makes up for it
      const missing = j.panels.slice(j.panels.indexOf(panels.at(-1) ?? '') + 1).length;
      joints.set(j.id, { ...j, panels, spacer: j.spacer + Math.round(missing * wish.sheet.thickness) });
    }
  }
  const known = new Set(doc.rig.mounts.map(m => m.id));
  const rig = {
    ...doc.rig,
    mounts: [...doc.rig.mounts, ...[...mounts.values()].filter(m => !known.has(m.id))],
  };
  const sheets = Object.fromEntries(plates.map(p => [p.panel.id, wish.sheet]));
  return remarked(
    inPlan(
      { ...doc, rig },
      {
        panels: [...doc.plan.panels, ...plates.map(p => p.panel)],
        joints: [...doc.plan.joints, ...joints.values()],
        seams: [...doc.plan.seams, ...proposal.seams.filter(s => here.has(s.front) && here.has(s.rear))],
        builds: doc.plan.builds.map(b => ({ ...b, sheets: { ...b.sheets, ...sheets } })),
      },
    ),
  );
}
