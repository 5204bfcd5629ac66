import type { FoldedPanel } from '../fold';
import type { Vec3 } from '../geometry';
import { type Joint, panelWord, stackedIn, topPlateOf } from '../plan';
import type { Member, Mount, PresentBar, PresentRig } from '../rig';
import { MATERIALS } from '../sheet';
import { clampLimits, INSTALL_SHARE, type Limit, SPACER_NAMES, throughLimit } from './clamp';
import { drillsFor, goesRound, needsNewNut } from './drill';
import {
  hasFoot,
  type NutElement,
  type NutSize,
  nutElement,
  nutSize,
  SETTING_TOOL,
  washerSize,
} from './elements';
import { clampScatter, nutFactor, prevailingTorque, torqueFor } from './friction';
import { HEAD_NAMES, type HeadSize, headSize } from './heads';
import { stockLength } from './length';
import { hardwareMass, strapMass } from './mass';
import { outwardOf } from './outward';
import { type JointPart, partsOf } from './parts';
import { SPACER } from './spacer';
import { strapOver } from './strap';
import { STRENGTH } from './strength';
import { type Thread, threadNamed } from './thread';
import { throughMember } from './through';
import { torqueWrench } from './wrench';

export type LayerKind = 'head' | 'washer' | 'plate' | 'bar' | 'spacer' | 'member' | 'nut';

/** One thing in the stack, from the head on. mm. */
export interface Layer {
  readonly kind: LayerKind;
  readonly name: string;
  readonly thickness: number;
  /** for the drawing; 0 for sheet, which runs on */
  readonly diameter: number;
  readonly ref?: string;
}

/**
 * The tools of one joint by what they are for, as the tool list names them: `head` turns the head, `nut` holds the nut (or turns it where
 * the head cannot be turned), `torque` reads the torque, `set` sets a rivet nut. What it does not need is left out.
 */
export type JointTools = Readonly<Partial<Record<'head' | 'nut' | 'torque' | 'set', string>>>;
export type ToolUse = keyof JointTools;
/** Everything but the torque wrench and what sets nuts: what is in the hands when bolts are run in or out. */
export const HAND_TOOLS: readonly ToolUse[] = ['head', 'nut'];
const EVERY_USE: readonly ToolUse[] = ['head', 'nut', 'torque', 'set'];
/** The names of a joint's tools, those for some uses alone. */
export const toolsFor = (j: Pick<ResolvedJoint, 'toolFor'>, uses = EVERY_USE): readonly string[] =>
  uses.map(u => j.toolFor[u]).filter(t => t !== undefined);

export interface ResolvedJoint {
  readonly id: string;
  readonly joint: Joint;
  readonly mount?: Mount;
  readonly member?: Member;
  readonly at: Vec3;
  readonly thread: Thread;
  readonly head: HeadSize;
  readonly nut?: NutSize & {
    readonly kind: NutElement;
    /** it came with the hole and is sound */
    readonly own: boolean;
  };
  readonly layers: readonly Layer[];
  readonly gripMm: number;
  /** least length that holds, mm */
  readonly neededMm: number;
  readonly lengthMm: number;
  /** bolt end past the nut element, mm */
  readonly protrusionMm: number;
  readonly torqueNm: number;
  /** torque that the same clamp may take at the ends of K's spread, N·m */
  readonly torqueBand: readonly [number, number];
  /** clamp that the torque gives, N, and no more than the joint can hold */
  readonly preloadN: number;
  /** clamp that the torque asks for, N: over `preloadN` where an entered torque is more than the joint can hold */
  readonly askedN: number;
  /** what it bears before it gives: pulled along the bolt (the weakest of bolt at proof, head, nut element, sheet), and sheared, N */
  readonly bearsN: { readonly tension: number; readonly shear: number };
  /** what each element bears along the bolt before it gives, N */
  readonly pulls: readonly Limit[];
  readonly limitedBy: string;
  readonly kFactor: number;
  /** part of the torque that a lock nut asks for before it clamps: half of the most it may be, N·m; nought for other nuts */
  readonly prevailingNm: number;
  readonly drill: readonly number[];
  /** what turns, holds, pulls and sets it, by what it is for */
  readonly toolFor: JointTools;
  /** everything bought for it, from the head to the nut */
  readonly parts: readonly JointPart[];
  readonly massKg: number;
}

const TURNED_HEADS = new Set(['carriage', 't-bolt']);
/** Whether the nut is what is turned: on a stud, on the legs of a strap, and where nothing turns the head. */
export const nutIsTurned = ({ joint, head, nut }: Pick<ResolvedJoint, 'joint' | 'head' | 'nut'>): boolean =>
  nut?.kind === 'stud' || nut?.kind === 'axle-strap' || TURNED_HEADS.has(joint.fastener.head) || !head.tool;
/** How high a head stands off the outermost sheet with the washers under it, mm. */
export function headStands({ layers, head }: Pick<ResolvedJoint, 'layers' | 'head'>): number {
  const washers = layers.slice(1).findIndex(l => l.kind !== 'washer');
  return head.height + layers.slice(1, 1 + Math.max(0, washers)).reduce((s, l) => s + l.thickness, 0);
}

/** Thickness of the bracket that has the thread itself, mm; undefined where none has. */
const tappedIn = (joint: Joint, panels: ReadonlyMap<string, FoldedPanel>): number | undefined =>
  joint.threadIn === undefined ? undefined : panels.get(joint.threadIn)?.sheet.thickness;

/** Layers of a stack from the head to the nut, and the element that takes the thread. */
function stack(
  joint: Joint,
  t: Thread,
  panels: readonly FoldedPanel[],
  member: Member | undefined,
  bar: PresentBar | undefined,
  element: NutElement | undefined,
  top: { readonly plate: FoldedPanel; readonly depth: number } | undefined,
): { layers: Layer[]; grip: number } {
  const separate = joint.nut !== 'none' || element === 'stud';
  // the legs of a strap stand beside their tube, a clamp's ear under it
  const round = goesRound(joint);
  const washers = joint.washers.map(kind => ({ kind, ...washerSize(kind, t) }));
  // a lock or half-moon washer belongs at the nut when there is one; so does the last of two alike
  const atNut = separate
    ? washers.filter(
        (w, i) => w.kind === 'lock' || w.kind === 'half-moon' || (i > 0 && i === washers.length - 1),
      )
    : [];
  const layer = (w: (typeof washers)[number]): Layer => ({
    kind: 'washer',
    name: w.name,
    thickness: w.thickness,
    diameter: w.outer,
  });
  const sheet = (p: FoldedPanel): Layer => ({
    kind: 'plate',
    name: panelWord(p.panel),
    thickness: p.sheet.thickness,
    diameter: 0,
    ref: p.panel.id,
  });
  const plates = panels.map(sheet);
  const spacer: Layer[] =
    joint.spacer > 0
      ? [
          {
            kind: 'spacer',
            name:
              element === 'post'
                ? 'threaded post'
                : element === 'tube-clamp'
                  ? 'foot of the clamp'
                  : `${SPACER_NAMES[joint.spacerOf ?? 'steel']} spacer`,
            thickness: joint.spacer,
            diameter: SPACER.outer * t.d,
          },
        ]
      : [];
  const wall: Layer[] = member
    ? [
        {
          kind: 'member',
          name: member.kind,
          // a top plate lies on its far side
          thickness: top?.depth ?? member.wall,
          diameter: 0,
          ref: member.id,
        },
      ]
    : [];
  const through: Layer[] = bar
    ? [{ kind: 'bar', name: bar.name, thickness: bar.section.height, diameter: 0, ref: bar.id }]
    : [];
  // without a hole in the vehicle the innermost panel is what the others are bolted to
  const onto = joint.mount === undefined && plates.length > 1 ? plates.splice(-1) : [];
  const middle = [...plates, ...through, ...spacer, ...onto, ...wall, ...(top ? [sheet(top.plate)] : [])];
  if (joint.headSide === 'above') middle.reverse();
  const layers = [...washers.filter(w => !atNut.includes(w)).map(layer), ...middle, ...atNut.map(layer)];
  // the thread starts in the wall itself where it is tapped or carries a rivet nut
  const tapped = !element || element === 'threaded' || element === 'rivet-nut';
  /** what the bolt does not clamp: what has the thread, and all beyond a post */
  const beyond = (l: Layer): boolean =>
    hasFoot(element)
      ? l.kind === 'spacer' || l.kind === 'member'
      : round
        ? l.kind === 'member'
        : tapped && (joint.threadIn === undefined ? l.kind === 'member' : l.ref === joint.threadIn);
  const grip = layers.reduce((sum, l) => sum + (beyond(l) ? 0 : l.thickness), 0);
  return { layers, grip };
}

/**
 * A joint with everything decided: stack, grip, stock length, torque and what limits it, drills, tools, parts.
 * Grip = plates + washers + spacer + member wall; length = grip + nut + two pitches, next stock length; torque
 * T = K·d·F with F the least of what bolt, head, nut element and sheet can take.
 */
export function resolveJoint(
  joint: Joint,
  rig: PresentRig,
  panelById: ReadonlyMap<string, FoldedPanel>,
): ResolvedJoint | undefined {
  const thread = threadNamed(joint.fastener.thread);
  if (!thread.ok) return undefined;
  const t = thread.value;
  const mount = joint.mount === undefined ? undefined : rig.mounts.find(m => m.id === joint.mount);
  const member = mount ? rig.members.find(m => m.id === mount.member) : undefined;
  const bar = mount && rig.bars.find(b => b.mounts.includes(mount.id));
  const panels = stackedIn(joint).flatMap(id => panelById.get(id) ?? []);
  const topPlate = panelById.get(topPlateOf(joint) ?? '');
  const top =
    topPlate && member && mount
      ? { plate: topPlate, depth: throughMember(member, mount.at, outwardOf(mount)) }
      : undefined;
  const at = mount?.at ?? joint.at ?? [0, 0, 0];
  const repaired = joint.nut === 'none' && joint.threadIn === undefined && needsNewNut(mount);
  const element: NutElement | undefined = repaired
    ? mount?.nutReach === 'none'
      ? 'rivet-nut'
      : 'flange-serrated'
    : joint.threadIn !== undefined && joint.nut === 'none'
      ? 'threaded'
      : nutElement(joint.nut, mount?.hole.kind);
  /** a nut on what has the thread already, instead of a bolt */
  const over = goesRound(joint) && member ? strapOver(member, t, outwardOf(mount)) : undefined;
  const strap = element === 'axle-strap' ? over : undefined;
  const tubeMm = element === 'tube-clamp' ? over?.overMm : undefined;
  const nutted = element === 'stud' || strap !== undefined;
  const head = headSize(joint.fastener.head, t);
  const own = joint.nut === 'none' && !repaired;
  const nut = element ? { kind: element, own, ...nutSize(element, t) } : undefined;
  const { layers, grip } = stack(joint, t, panels, member, bar, element, top);
  const engaged =
    element === 'threaded'
      ? Math.min(t.d, tappedIn(joint, panelById) ?? member?.wall ?? t.d)
      : (nut?.height ?? (member ? member.wall + t.pitch : 0));
  // in a post or foot it ends blind: nothing has to stand out
  const neededMm = grip + engaged + (hasFoot(element) ? 0 : 2 * t.pitch);
  const lengthMm = joint.fastener.length === 'auto' ? stockLength(neededMm, t) : joint.fastener.length;
  const turnsNut = nutIsTurned({ joint, head, nut });
  const kFactor = nutFactor(joint.fastener.finish, joint.lube, turnsNut && element === 'flange-serrated');
  // what the lock takes is lost to the clamp; how much it is differs from nut to nut
  const prevailingNm = prevailingTorque(joint.nut, t) / 2;
  const wall = tappedIn(joint, panelById) ?? member?.wall;
  // a post bears no more than the thread its stud is in
  const behind = element === 'post' ? nutElement('none', mount?.hole.kind) : undefined;
  const clamps = [
    ...clampLimits(joint, t, head, nut, panels, wall, element),
    ...(top && member ? [throughLimit(member, t, joint.spacer === 0)] : []),
    ...(behind ? clampLimits(joint, t, head, nutSize(behind, t), [], wall, behind) : []).filter(
      l => l.by !== 'bolt' && l.by !== 'head',
    ),
  ];
  const least = clamps.reduce((a, b) => (b.force < a.force ? b : a));
  // what an element bears before it gives is more than it is tightened to
  const pulls = clamps.map(({ by, bears }): Limit => ({ by, force: bears }));
  const entered = joint.torque !== 'auto';
  // a soft nut strips by torque as well, however little of it becomes clamp on a dry thread
  const byClamp = torqueFor(kFactor, t.d, least.force) + prevailingNm;
  const byNut = nut?.stripTorque === undefined ? Number.POSITIVE_INFINITY : INSTALL_SHARE * nut.stripTorque;
  const torqueNm = entered ? (joint.torque as number) : Math.min(byClamp, byNut);
  const askedN = (Math.max(0, torqueNm - prevailingNm) * 1000) / (kFactor * t.d);
  // whatever was entered, no joint holds more than its weakest part
  const preloadN = Math.min(askedN, ...pulls.map(l => l.force));

  const scatter = clampScatter(joint.lube);
  const bought = joint.nut !== 'none' || repaired;
  const legs = strap ? 2 : 1;
  const parts = partsOf({ joint, thread: t, lengthMm, element, nut, newNut: bought, strap, tubeMm });
  const wrench = torqueWrench(torqueNm);
  const toolFor: JointTools = {
    ...(head.tool && !nutted ? { head: head.tool } : {}),
    ...(nut?.flats ? { nut: `${turnsNut ? 'socket' : 'wrench'} ${nut.flats}` } : {}),
    ...(wrench ? { torque: wrench } : {}),
    ...(element === 'rivet-nut' && !own ? { set: SETTING_TOOL } : {}),
  };
  return {
    id: joint.id,
    joint,
    mount,
    member,
    at,
    thread: t,
    head,
    nut,
    layers: [
      nutted && nut
        ? { kind: 'head', name: nut.name, thickness: nut.height, diameter: nut.diameter }
        : {
            kind: 'head',
            name: HEAD_NAMES[joint.fastener.head],
            thickness: head.height,
            diameter: head.bearing,
          },
      ...layers,
      ...(nut && !nutted
        ? [{ kind: 'nut' as const, name: nut.name, thickness: nut.height, diameter: nut.diameter }]
        : []),
    ],
    gripMm: grip,
    neededMm,
    lengthMm,
    protrusionMm: lengthMm - grip - engaged,
    torqueNm,
    torqueBand: [
      (torqueNm - prevailingNm) / (1 + scatter),
      (torqueNm - prevailingNm) / (1 - scatter) + 2 * prevailingNm,
    ],
    preloadN,
    askedN,
    bearsN: {
      tension: legs * Math.min(...pulls.map(l => l.force)),
      // shear strength 0.577 of tension (von Mises; Shigley Eq. 5-20), the thread in the shear plane
      shear: 0.577 * STRENGTH[joint.fastener.class].proof * t.stressArea,
    },
    pulls,
    limitedBy: entered ? 'value entered' : byNut < byClamp ? (nut?.name ?? least.by) : least.by,
    kFactor,
    prevailingNm,
    drill: drillsFor(joint, mount, t),
    toolFor,
    parts,
    massKg:
      (strap ? strapMass(strap, t, lengthMm, nut) : 0) +
      hardwareMass(
        t,
        head,
        nutted ? 0 : lengthMm,
        layers,
        nut,
        (bought && !hasFoot(element)) || nutted,
        MATERIALS[SPACER.of[joint.spacerOf ?? 'steel']].density * 1e-9,
      ),
  };
}

interface Kept {
  readonly mount: Mount | undefined;
  readonly member: Member | undefined;
  readonly bar: PresentBar | undefined;
  readonly sheets: readonly (FoldedPanel['sheet'] | string)[];
  readonly made: ResolvedJoint | undefined;
}
const kept = new WeakMap<Joint, Kept>();

/** As `resolveJoint`, kept while the joint, its hole, its member and its sheets stay what they are. */
function keptJoint(
  joint: Joint,
  rig: PresentRig,
  mounts: ReadonlyMap<string, Mount>,
  members: ReadonlyMap<string, Member>,
  panelById: ReadonlyMap<string, FoldedPanel>,
): ResolvedJoint | undefined {
  const mount = joint.mount === undefined ? undefined : mounts.get(joint.mount);
  const member = mount && members.get(mount.member);
  // of a plate a joint knows its mark and its sheet, not its shape
  const sheets = joint.panels.flatMap(id => {
    const p = panelById.get(id);
    return p ? [p.sheet, p.panel.mark] : [];
  });
  const bar = mount && rig.bars.find(b => b.mounts.includes(mount.id));
  const last = kept.get(joint);
  const same =
    last &&
    last.mount === mount &&
    last.member === member &&
    last.bar === bar &&
    last.sheets.length === sheets.length &&
    last.sheets.every((x, i) => x === sheets[i]);
  if (same) return last.made;
  const made = resolveJoint(joint, rig, panelById);
  kept.set(joint, { mount, member, bar, sheets, made });
  return made;
}

/** Every joint of a plan that can be made on the rig as it is; joints on absent holes are left out. */
export function resolveJoints(
  joints: readonly Joint[],
  rig: PresentRig,
  panels: readonly FoldedPanel[],
): readonly ResolvedJoint[] {
  const byId = new Map(panels.map(p => [p.panel.id, p]));
  const mounts = new Map(rig.mounts.map(m => [m.id, m]));
  const members = new Map(rig.members.map(m => [m.id, m]));
  return joints
    .filter(j => j.mount === undefined || mounts.has(j.mount))
    .flatMap(j => keptJoint(j, rig, mounts, members, byId) ?? []);
}
