import { length3, sub3 } from '../geometry';
import { type Method, topPlateOf } from '../plan';
import { cutOf, marksFirst } from './holes';
import type { ResolvedJoint } from './joint';
import { toolCode } from './tool-name';

/** One move of drilling a hole. */
export interface DrillingMove {
  readonly what: string;
  /** the bit or tool in the hand */
  readonly tool?: string;
  /** what a bit goes through in this move */
  readonly drills?: 'member' | 'plate';
}

/** How one new hole is made, from marking it to painting its edge. Lengths in mm. */
export interface DrillingCard {
  readonly joint: string;
  readonly moves: readonly DrillingMove[];
  /** the drill must not go in further than this from the face it starts on: the plate's, where it is the template; undefined where nothing is known behind */
  readonly stopMm?: number;
  readonly behind?: { readonly component: string; readonly depth: number };
  /** joints with sound holes nearby that hold the plate in its place while it is marked */
  readonly fitFirst: readonly string[];
}

/**
 * Sheet up to this thickness is opened with a step bit, which does not grab; holes up to this size with a twist drill. The bit reaches so far
 * through before it has its size: less room than that behind, and a twist drill it is. mm; common practice, the length a guess.
 */
const STEP_BIT = { wall: 4, from: 10, length: 40 } as const;
/** What is left between the tip and the part behind, and how far a tip comes out before the bit is through, mm. */
const CLEAR = 5;
const TIP = 4;

/**
 * Where the stop on a drill is set, mm from the face it drills: through the metal and its own tip, and never nearer than 5 mm to what is
 * behind. Common practice, no source.
 */
export const drillStop = (behindMm: number, wallMm: number): number =>
  Math.max(0, Math.min(behindMm - CLEAR, wallMm + TIP));

const NEIGHBORS = 3;

/**
 * The card of a hole that has to be drilled in the vehicle; undefined where the hole is there and sound. Common practice, no source:
 * punch, pilot, steps of no more than twice the size before; a stop short of what is behind; bare edges painted.
 */
export function drillingCard(
  j: ResolvedJoint,
  all: readonly ResolvedJoint[],
  method: Pick<Method, 'drilling'>,
): DrillingCard | undefined {
  if (j.drill.length === 0) return undefined;
  const right = topPlateOf(j.joint) !== undefined;
  const drilling = marksFirst(j) ? 'mark-and-remove' : method.drilling;
  const wall = right
    ? j.layers.filter(l => l.kind === 'member').reduce((s, l) => s + l.thickness, 0)
    : (j.member?.wall ?? 3);
  // through the hanging plate the drill passes everything that lies below the member first
  const below =
    drilling === 'template' && j.mount?.hole.kind === 'drill'
      ? j.layers
          .filter(l => l.kind === 'plate' || l.kind === 'spacer' || l.kind === 'bar')
          .reduce((sum, l) => sum + l.thickness, 0)
      : 0;
  const isNew = j.mount?.hole.kind === 'drill';
  const cut = cutOf(j, method);
  const pilot = cut === 'pilot';
  const fitFirst = all
    .filter(
      o => o.id !== j.id && o.drill.length === 0 && o.joint.panels.some(p => j.joint.panels.includes(p)),
    )
    .sort((a, b) => length3(sub3(a.at, j.at)) - length3(sub3(b.at, j.at)))
    .slice(0, NEIGHBORS)
    .map(o => o.id);
  const mark: readonly DrillingMove[] = !isNew
    ? [{ what: 'Knock or drill the old nut out; the old hole leads the drill' }]
    : drilling === 'template'
      ? [
          {
            what: pilot
              ? 'Hang the plate by the bolts below and snug them; drill through its pilot hole as a template'
              : 'Hang the plate by the bolts below and snug them; drill through its own hole as a template',
            tool: 'marker',
          },
          { what: 'Punch the middle of the hole', tool: 'center punch' },
        ]
      : [
          {
            what: 'Hang the plate by the bolts below, mark round its hole, and take it down again',
            tool: 'marker',
          },
          { what: 'Punch the middle of the mark', tool: 'center punch' },
        ];
  const bits = j.drill.map((size, i): DrillingMove => {
    const last = i === j.drill.length - 1;
    const room = j.mount?.behind?.depth ?? Number.POSITIVE_INFINITY;
    const step = !right && wall <= STEP_BIT.wall && size > STEP_BIT.from && room >= STEP_BIT.length;
    return {
      what: i === 0 && j.drill.length > 1 ? 'Pilot' : last ? 'Final size' : 'Open it',
      tool: toolCode(step ? 'step-bit' : 'twist-drill', size),
      drills: 'member',
    };
  });
  const behind = j.mount?.behind;
  return {
    joint: j.id,
    moves: [
      ...mark,
      ...bits,
      ...(right
        ? [
            {
              what: 'Go on through the far wall with the long drill, square to the face: the bolt comes out on top',
              tool: toolCode('twist-drill', j.drill.at(-1) ?? j.thread.clearance),
              drills: 'member' as const,
            },
          ]
        : []),
      ...(cut === 'full' || j.joint.panels.length === 0
        ? []
        : [
            {
              drills: 'plate' as const,
              what: !pilot
                ? 'Drill the plate where it was marked'
                : drilling === 'template'
                  ? 'Take the plate down and open its pilot'
                  : 'Open the pilot in the plate',
              tool: toolCode('twist-drill', j.thread.clearances[j.joint.fit ?? 'normal']),
            },
          ]),
      { what: 'Take off the burr and paint the bare edge', tool: 'deburring tool, cold zinc or paint' },
    ],
    ...(behind ? { behind, stopMm: below + drillStop(behind.depth, wall) } : {}),
    fitFirst,
  };
}
