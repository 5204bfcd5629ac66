/** What goes wrong at a bolt or a step. `holds`: the bolt is not sound until it is mended. */
export const FAULTS = [
  { id: 'stripped', name: 'Stripped: it turns without getting tighter', holds: true },
  { id: 'cross-threaded', name: 'Cross-threaded', holds: true },
  { id: 'stretched', name: 'Bolt stretched', holds: true },
  { id: 'sheared', name: 'Bolt sheared off', holds: true },
  { id: 'skipped', name: 'Left out for now', holds: true },
  { id: 'misaligned', name: 'Hole does not line up', holds: false },
  { id: 'dropped', name: 'Nut or bolt dropped inside', holds: false },
  { id: 'rounded', name: 'Head rounded off', holds: false },
  { id: 'rusted-fast', name: 'Seized by rust', holds: false },
  { id: 'wrong-length', name: 'Wrong bolt length', holds: false },
  { id: 'part-missing', name: 'Part missing', holds: false },
  { id: 'other-bolt', name: 'Other bolt used', holds: false },
  { id: 'off-mark', name: 'Hole drilled off its mark', holds: false },
  { id: 'touches', name: 'Touches something above', holds: false },
  { id: 'other', name: 'Something else', holds: false },
] as const;
export type FaultKind = (typeof FAULTS)[number]['id'];
export const FAULT_IDS: readonly FaultKind[] = FAULTS.map(f => f.id);

/** What helps at once with what needs no repair of its own. Common practice, no source. */
export const FAULT_HELP: Readonly<Partial<Record<FaultKind, string>>> = {
  misaligned:
    'All bolts loose, one far bolt started, then a drift punch or a pry bar. Never force a bolt that goes in crooked. Off by more than the play of its hole: note how far, open the hole to a slot or drill it new.',
  dropped:
    'A magnet stick and a lamp through the nearest opening. What stays inside a boxed member rattles; what lies on a plate is found by the next rock.',
  rounded: 'A six-point socket one size down, hammered on; an extractor; or cut a slot. A new bolt goes in.',
  'rusted-fast':
    'Penetrating oil and time, tighten a hair before loosening. Heat only far from fuel, lines and wiring. Stop when it creaks: a sheared stud costs the afternoon.',
  'wrong-length':
    'Too short: fewer than two turns past the nut holds less than it shows. Too long: look what it reaches. Note what was used.',
};

export const faultName = (f: FaultKind): string => FAULTS.find(x => x.id === f)?.name ?? f;
export const holdsOpen = (f: FaultKind | null | undefined): boolean =>
  FAULTS.some(x => x.id === f && x.holds);
