import { holeWidth } from '../fold';
import { type Around, extensionFor } from './access';
import { type ResolvedJoint, toolsFor } from './joint';
import { type JointPart, PART_KINDS } from './parts';
import { toolCode } from './tool-name';

export interface ShoppingLine {
  readonly kind: JointPart['kind'];
  readonly part: string;
  readonly count: number;
}
export interface ToolLine {
  readonly tool: string;
  /** joint ids */
  readonly for: readonly string[];
}

/** The bag list: every part of every joint, counted, in the order bolts, washers, nuts, spacers as they first occur. */
export function hardwareList(joints: readonly ResolvedJoint[]): readonly ShoppingLine[] {
  const lines = new Map<string, ShoppingLine>();
  for (const { kind, name } of joints.flatMap(j => j.parts))
    lines.set(name, { kind, part: name, count: (lines.get(name)?.count ?? 0) + 1 });
  return [...lines.values()].sort((a, b) => PART_KINDS.indexOf(a.kind) - PART_KINDS.indexOf(b.kind));
}

/** A labeled bag of the kit: what goes in with one plate, bracket or crossbar. */
export interface PartBag {
  /** the outermost panel its bolts pass; undefined for bolts of crossbars alone */
  readonly panel?: string;
  readonly joints: readonly string[];
  readonly lines: readonly ShoppingLine[];
}

/** The bag list apart by what each bolt is started with, its outermost plate, in the order of the panels given; crossbars last. Every part is in one bag. */
export function bagsByPlate(
  joints: readonly ResolvedJoint[],
  panels: readonly { readonly panel: { readonly id: string } }[],
): readonly PartBag[] {
  const bagOf = (panel: string | undefined): readonly PartBag[] => {
    const own = joints.filter(j => j.joint.panels[0] === panel);
    return own.length === 0
      ? []
      : [
          {
            ...(panel === undefined ? {} : { panel }),
            joints: own.map(j => j.id),
            lines: hardwareList(own),
          },
        ];
  };
  return [...panels.map(p => p.panel.id), undefined].flatMap(bagOf);
}

/**
 * One roll for the whole job: sockets, keys, bits, wrenches and drills, each with the joints it is for; with what is
 * around the joints also the extensions that get a ratchet past it, and the bits that open their holes in the plates.
 */
export function toolList(joints: readonly ResolvedJoint[], around?: Around): readonly ToolLine[] {
  const uses = new Map<string, string[]>();
  const add = (tool: string, id: string): void => {
    const list = uses.get(tool) ?? [];
    if (!list.includes(id)) list.push(id);
    uses.set(tool, list);
  };
  for (const j of joints) {
    for (const tool of toolsFor(j)) add(tool, j.id);
    if (j.drill.length > 0) for (const tool of ['marker', 'center punch', 'deburring tool']) add(tool, j.id);
    if (j.drill.length > 0 && j.mount?.behind) add('drill stop', j.id);
    for (const size of j.drill) add(toolCode('drill', size), j.id);
    // a pilot is opened, and what the shop left uncut is drilled, at the vehicle
    for (const h of around?.panels.flatMap(p => p.holes) ?? [])
      if (h.joint === j.id && (h.kind === 'pilot' || h.kind === 'uncut'))
        for (const tool of [toolCode('drill', holeWidth(h.final)), 'deburring tool']) add(tool, j.id);
    const extension = around && extensionFor(j, around);
    if (extension !== undefined) add(toolCode('extension', extension), j.id);
    if (j.joint.lube !== 'dry') add(j.joint.lube, j.id);
    if (j.mount?.condition === 'rusted') add(`thread chaser ${j.thread.designation}`, j.id);
  }
  return [...uses]
    .map(([tool, list]) => ({ tool, for: list }))
    .sort((a, b) => a.tool.localeCompare(b.tool, 'en', { numeric: true }));
}
