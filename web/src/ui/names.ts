import { HEAD_NAMES } from '@plate-fold/core/bolt';
import type { Head, SheetChoice } from '@plate-fold/core/plan';
import { MATERIALS, tradeName } from '@plate-fold/core/sheet';

/** A sheet as it is asked for at the counter: `3/16 in steel`. */
export function sheetName(s: Pick<SheetChoice, 'material' | 'thickness' | 'gauge'>): string {
  const m = MATERIALS[s.material];
  return `${s.gauge ?? tradeName(m.family, s.thickness)} ${m.short}`;
}

export const headName = (h: Head): string => HEAD_NAMES[h];

export const FINISH_NAMES = {
  raw: 'bare',
  powder: 'powder coat',
  paint: 'paint',
  zinc: 'zinc plated',
} as const;

export const STAGE_NAMES = {
  safety: 'Make it safe',
  kit: 'Kit',
  remove: 'Take off',
  inspect: 'Look',
  repair: 'Repair',
  drill: 'Holes and nuts',
  bench: 'Bench',
  support: 'Support',
  hang: 'Hang',
  start: 'Start by hand',
  home: 'Slide home',
  tighten: 'Tighten',
  check: 'Check',
  finish: 'Finish',
} as const;

export const BODY_NAMES = {
  truck: 'pickup',
  suv: 'SUV',
  car: 'car',
  'side-by-side': 'side-by-side',
} as const;

export const SIDE_NAMES = {
  above: 'From above',
  'head-front': 'On your back, head to front',
  'head-rear': 'On your back, head to rear',
} as const;

export const LUBE_NAMES = {
  dry: 'dry',
  'anti-seize': 'anti-seize',
  oil: 'oil',
  threadlocker: 'threadlocker',
} as const;

export const CONDITION_NAMES = {
  good: 'sound',
  rusted: 'rusted',
  stripped: 'stripped',
  'broken-nut': 'broken nut',
  blocked: 'blocked',
} as const;

export const REACH_NAMES = {
  none: 'cannot be held behind',
  slot: 'held through a slot',
  open: 'held from behind',
} as const;

export const OPENING_NAMES = {
  drain: 'drain hole',
  door: 'door',
  view: 'view hole',
  louvers: 'louvers',
  stones: 'rock hole',
  relief: 'relief',
} as const;

export const NUT_NAMES = {
  none: 'the hole’s own thread',
  hex: 'hex nut',
  'nylon-lock': 'nylon lock nut',
  'all-metal-lock': 'all-metal lock nut',
  'flange-serrated': 'serrated flange nut',
  clip: 'clip nut',
  spring: 'spring nut',
  clinch: 'clinch nut',
  'rivet-nut': 'rivet nut',
  'nut-plate': 'nut plate',
  'weld-tab': 'tab with welded nut',
  'nut-strip': 'nut strip in the channel',
  post: 'threaded post instead of a spacer',
  'tube-clamp': 'tube clamp with a threaded foot',
  'axle-strap': 'strap over the axle tube',
} as const;

export const WASHER_NAMES = {
  flat: 'flat washer',
  lock: 'lock washer',
  fender: 'fender washer',
  cup: 'cup washer',
  tapered: 'tapered washer',
  'half-moon': 'half-moon washer',
} as const;

export const FASTENER_FINISH_NAMES = { plain: 'plain', zinc: 'zinc', stainless: 'stainless' } as const;

/** Kinds of holes as a mechanic calls them. */
export const HOLE_NAMES = {
  threaded: 'threaded hole',
  'captive-nut': 'captive nut',
  through: 'through hole',
  slot: 'slot',
  'rivet-nut': 'rivet nut',
  'clip-nut': 'clip nut',
  stud: 'stud',
  drill: 'to be drilled',
} as const;
