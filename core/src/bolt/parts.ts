import type { Joint } from '../plan';
import { formatLength } from '../units';
import { SPACER_NAMES } from './clamp';
import { hasFoot, type NutElement, type NutSize, washerSize } from './elements';
import { HEAD_NAMES } from './heads';
import { lengthName } from './length';
import { spacerName, spacerPile } from './spacer';
import type { Strap } from './strap';
import { NUT_CLASS, WASHER_CLASS } from './strength';
import type { Thread } from './thread';

/** One part of a joint as it is bought, in the order of the hardware list. */
export const PART_KINDS = ['bolt', 'washer', 'nut', 'spacer'] as const;
export interface JointPart {
  readonly kind: (typeof PART_KINDS)[number];
  readonly name: string;
}
export const partNames = (j: { readonly parts: readonly JointPart[] }): readonly string[] =>
  j.parts.map(p => p.name);

/** Nuts that are bought by their class. */
const STANDARD_NUTS: ReadonlySet<string> = new Set([
  'hex',
  'nylon-lock',
  'all-metal-lock',
  'flange-serrated',
  'stud',
]);

/** What the parts of a joint are told by. */
interface Bought {
  readonly joint: Joint;
  readonly thread: Thread;
  readonly lengthMm: number;
  readonly element: NutElement | undefined;
  readonly nut: NutSize | undefined;
  /** its nut is new */
  readonly newNut: boolean;
  readonly strap: Strap | undefined;
  /** across the tube that a clamp goes round, mm */
  readonly tubeMm: number | undefined;
}

/** Everything bought for a joint. A stud is there already: it gets a nut and no bolt; a strap brings two legs, each with its nut and washers. */
export function partsOf(of: Bought): readonly JointPart[] {
  const { joint, thread: t, lengthMm, element, nut, newNut, strap, tubeMm } = of;
  const bought = t.system === 'inch' ? 'inch' : 'metric';
  const { head, class: grade, finish } = joint.fastener;
  // stainless is its own finish
  const coat = grade === 'A2-70' ? '' : `, ${finish}`;
  const washers = joint.washers.map(w => ({
    kind: 'washer' as const,
    name: `${washerSize(w, t).name} ${t.size}, ${WASHER_CLASS[grade]}${coat}`,
  }));
  const foot = hasFoot(element);
  const spacers = (foot ? [] : spacerPile(joint.spacer, t)).map(mm => ({
    kind: 'spacer' as const,
    name: `${joint.spacerOf && joint.spacerOf !== 'steel' ? `${SPACER_NAMES[joint.spacerOf]} ` : ''}spacer ${spacerName(mm, t)} for ${t.size}`,
  }));
  if (strap) {
    const leg = {
      kind: 'nut' as const,
      name: `serrated flange nut ${t.designation}, ${NUT_CLASS[grade]}${coat}`,
    };
    const over = formatLength(strap.overMm, bought);
    return [
      {
        kind: 'bolt',
        name: `strap over a tube of ${over}, legs ${t.designation} \u00d7 ${lengthName(lengthMm, t)} below it`,
      },
      ...washers,
      ...washers,
      leg,
      leg,
      ...spacers,
      ...spacers,
    ];
  }
  const stud = element === 'stud';
  return [
    ...(stud
      ? []
      : [
          {
            kind: 'bolt' as const,
            name: `${HEAD_NAMES[head]} ${t.designation} \u00d7 ${lengthName(lengthMm, t)}, ${grade.replace('-', ' ').replace('A2 ', 'A2-')}, ${finish}`,
          },
        ]),
    ...washers,
    ...((newNut || stud) && nut && !foot
      ? [
          {
            kind: 'nut' as const,
            name: `${nut.name} ${t.designation}${element && STANDARD_NUTS.has(element) ? `, ${NUT_CLASS[grade]}${coat}` : ''}`,
          },
        ]
      : []),
    ...(element === 'tube-clamp'
      ? [
          {
            kind: 'nut' as const,
            name: `tube clamp${tubeMm === undefined ? '' : ` for a tube of ${formatLength(tubeMm, bought)}`}, foot ${spacerName(joint.spacer, t)} high, tapped ${t.designation}`,
          },
        ]
      : []),
    ...(element === 'post'
      ? [
          {
            kind: 'spacer' as const,
            name: `threaded post ${t.designation}, ${spacerName(joint.spacer, t)} high, with stud`,
          },
        ]
      : []),
    ...spacers,
  ];
}
