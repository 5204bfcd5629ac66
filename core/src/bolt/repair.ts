import type { FoldedPanel } from '../fold';
import type { Joint } from '../plan';
import type { PresentRig } from '../rig';
import { jointCapacity } from './capacity';
import { type ResolvedJoint, resolveJoint, toolsFor } from './joint';
import { partNames } from './parts';
import { toolCode } from './tool-name';

/** One way to make a bad hole hold again. */
export interface RepairOption {
  readonly id: 'chase' | 'flange-nut' | 'nut-plate' | 't-bolt' | 'rivet-nut' | 'weld-tab';
  readonly name: string;
  /** what is done, in a sentence or two */
  readonly how: string;
  readonly joint: Joint;
  readonly made: ResolvedJoint;
  /** least share of what the sound hole bore, pulled or sheared */
  readonly ofOriginal: number;
  /** parts and tools that the sound hole did not need */
  readonly adds: readonly string[];
  readonly caution?: string;
}

type Way = Pick<RepairOption, 'id' | 'name' | 'how' | 'caution'> & { readonly change: Partial<Joint> };

const CHASE: Way = {
  id: 'chase',
  name: 'Clean and chase the thread',
  how: 'Wire brush, penetrating oil and time, then a thread chaser by hand. If a bolt then runs in by hand it holds as before; if not, treat it as stripped.',
  change: { lube: 'anti-seize' },
};
const FLANGE_NUT: Way = {
  id: 'flange-nut',
  name: 'Serrated flange nut behind',
  how: 'Knock the old nut out, put a flange nut behind the wall and hold it with a wrench.',
  change: { nut: 'flange-serrated' },
};
const NUT_PLATE: Way = {
  id: 'nut-plate',
  name: 'Nut plate through the slot',
  how: 'Slide a nut plate in through the opening of the member, hold it with a magnet or wire and start the bolt into it.',
  change: { nut: 'nut-plate' },
};
const RIVET_NUT: Way = {
  id: 'rivet-nut',
  name: 'Rivet nut from below',
  how: 'Drill the hole out to the body of a rivet nut and set it with the tool; do not exceed its torque.',
  change: { nut: 'rivet-nut' },
};
const WELD_TAB: Way = {
  id: 'weld-tab',
  name: 'Tab with a welded nut',
  how: 'A welder puts a tab with a nut on it to the member.',
  caution:
    'Welding near fuel, wiring and on a frame is for a licensed shop: battery off, tank and lines clear, the maker\u2019s rules for the frame kept.',
  change: { nut: 'weld-tab' },
};
const tBolt = (j: Joint): Way => ({
  id: 't-bolt',
  name: 'T-bolt through the slot',
  how: 'Put a T-bolt in through the opening of the member, turn it crosswise, and tighten a flange nut from below.',
  change: {
    nut: 'flange-serrated',
    headSide: 'above',
    fastener: { ...j.fastener, head: 't-bolt' },
  },
});

/** What can be done with a hole by its condition and who reaches behind it. Common practice, no source. */
function waysFor(j: ResolvedJoint): readonly Way[] {
  const { mount } = j;
  if (!mount) return [];
  const behind =
    mount.nutReach === 'open'
      ? [FLANGE_NUT, NUT_PLATE, RIVET_NUT, WELD_TAB]
      : mount.nutReach === 'slot'
        ? [NUT_PLATE, tBolt(j.joint), RIVET_NUT, WELD_TAB]
        : [RIVET_NUT, WELD_TAB];
  if (mount.condition === 'stripped' || mount.condition === 'broken-nut') return behind;
  const threaded = mount.hole.kind !== 'through' && mount.hole.kind !== 'slot' && mount.hole.kind !== 'drill';
  return mount.condition === 'rusted' && threaded ? [CHASE, ...behind] : [];
}

/** What to do about a rusted, stripped or broken hole, the strongest first, each against what the sound hole would bear. */
export function repairOptions(
  j: ResolvedJoint,
  rig: PresentRig,
  panels: readonly FoldedPanel[],
): readonly RepairOption[] {
  const { mount } = j;
  const ways = waysFor(j);
  if (!mount || ways.length === 0) return [];
  const byId = new Map(panels.map(p => [p.panel.id, p]));
  const sound: PresentRig = {
    ...rig,
    mounts: rig.mounts.map(m => (m.id === mount.id ? { ...m, condition: 'good' } : m)),
  };
  const before = resolveJoint({ ...j.joint, nut: 'none', lube: 'dry', torque: 'auto' }, sound, byId);
  if (!before) return [];
  const original = jointCapacity(before, panels);
  return ways
    .flatMap((way): readonly RepairOption[] => {
      const joint: Joint = { ...j.joint, torque: 'auto', ...way.change };
      // a chased thread is sound again; any other way is told by its own nut
      const made = resolveJoint(joint, way.id === 'chase' ? sound : rig, byId);
      if (!made) return [];
      const now = jointCapacity(made, panels);
      const { change: _, ...said } = way;
      const adds = [
        ...partNames(made).filter(p => !partNames(before).includes(p)),
        ...toolsFor(made).filter(t => !toolsFor(before).includes(t)),
        ...(way.id === 'chase' ? [`thread chaser ${made.thread.designation}`] : []),
        ...made.drill.map(x => toolCode('drill', x)),
      ];
      return [
        {
          ...said,
          joint,
          made,
          ofOriginal: Math.min(now.pull.force / original.pull.force, now.shear.force / original.shear.force),
          adds: [...new Set(adds)],
        },
      ];
    })
    .sort((a, b) => b.ofOriginal - a.ofOriginal);
}
