import type { StageEntry } from './stages';

/** What each stage is for: one sentence for the tour, and what one does there for the help. */
export const GUIDE: Readonly<Record<StageEntry['id'], { readonly tour: string; readonly does: string }>> = {
  rig: {
    tour: 'Rig: measure your vehicle with a tape. The numbers shape the underside, and every hole and part can be moved.',
    does: 'Enter tape measurements, parts, frame and crossmembers, bolt holes and their condition, options, and the factory parts to remove.',
  },
  cover: {
    tour: 'Cover: draw plates on the map from below, or let Plate Fold suggest a set that bolts to your crossmembers.',
    does: 'Draw, split, merge and shape plates; add flanges, openings and crossbars; bolt plates to holes. Findings say what is bare, too close or cannot be built.',
  },
  fold: {
    tour: 'Fold: see each blank flat and folded, check it against the shop\u2019s brake, and export DXF for cutting.',
    does: 'Bend order and brake limits, K-factor from the shop or from a test bend, hole list, nesting on stock sheets, and files for the shop.',
  },
  strike: {
    tour: 'Strike: drop the vehicle on a rock in simulation and see what bends, what touches and which bolts are loaded.',
    does: 'Choose the load, drag the rock, read deflection, clearance, stress, dent and bolt load. What would help is tried for you.',
  },
  weigh: {
    tour: 'Weigh: compare builds in steel and aluminum by weight, axle load, clearance and cost, and let it find the best sheet for your limits.',
    does: 'Builds side by side, every sheet for a plate, the best build under your limits, what matters to you, and cost.',
  },
  bolt: {
    tour: 'Bolt: every bolt drawn in section with its length and torque, the hardware list, the tools and the drilling cards.',
    does: 'Pick hardware or have it picked, repair bad holes, print torques, buy the hardware list, check the kit before the job.',
  },
  run: {
    tour: 'Run: one step a screen, on a phone under the vehicle, in the right torque sequence. Nothing you tick is lost.',
    does: 'Choose how you install it, see the time it takes, start a run, read a torque wrench, report problems, end with a record.',
  },
  log: {
    tour: 'Log: hits, re-torques, services and ride height, with what is due next and a build book to print.',
    does: 'Add entries, see what is due, plan services behind the plates, follow torque loss and ride height over time.',
  },
};

/** Names of drawings of the glossary (`GlossaryDrawing`). */
export type Drawing =
  | 'rivet-nut'
  | 'clinch-nut'
  | 'captive-nut'
  | 'slot'
  | 'flange'
  | 'catch-edge'
  | 'lap'
  | 'grip'
  | 'k-factor'
  | 'breakover'
  | 'crossbar'
  | 'countersunk'
  | 'spacer'
  | 'post'
  | 'prying';

export interface Term {
  readonly term: string;
  readonly means: string;
  readonly drawing?: Drawing;
}

/** The trade's words as the program uses them. */
export const GLOSSARY: readonly Term[] = [
  { term: 'Blank', means: 'The flat piece as it is cut, before bending.' },
  {
    term: 'Breakover angle',
    means: 'The steepest crest the vehicle drives over without touching between its axles.',
    drawing: 'breakover',
  },
  {
    term: 'Boat side',
    means:
      'A side wall bent up at an angle, like the side of a boat, so rock slides past instead of catching.',
    drawing: 'flange',
  },
  { term: 'Build', means: 'One choice of sheet for every plate. A plan compares several.' },
  {
    term: 'Captive nut',
    means: 'A nut welded or caged in the frame at the factory.',
    drawing: 'captive-nut',
  },
  {
    term: 'Catch edge',
    means: 'A front edge that hangs below the plate ahead of it and catches on rock.',
    drawing: 'catch-edge',
  },
  {
    term: 'Clinch nut',
    means: 'A nut pressed into a hole in sheet; its knurl keeps it from turning.',
    drawing: 'clinch-nut',
  },
  {
    term: 'Clearance',
    means: 'The room left between a plate and the part above it, at rest or under a strike.',
  },
  {
    term: 'Countersunk',
    means: 'A flat-topped screw whose head sits in a cone in the sheet, flush with its face.',
    drawing: 'countersunk',
  },
  {
    term: 'Crossbar',
    means: 'A bar you bolt in between frame rails to hold a plate where there is no crossmember.',
    drawing: 'crossbar',
  },
  { term: 'Dent', means: 'What stays bent after the rock is gone.' },
  {
    term: 'Flange',
    means: 'An edge bent up from the plate. It stiffens the plate and keeps rock from catching.',
    drawing: 'flange',
  },
  {
    term: 'Grip',
    means: 'Everything a bolt clamps: plates, washers, spacers and the wall it goes into.',
    drawing: 'grip',
  },
  {
    term: 'K-factor (bending)',
    means:
      'Where in the thickness the sheet neither stretches nor shrinks when bent. It sets the size of the blank.',
    drawing: 'k-factor',
  },
  {
    term: 'K (torque)',
    means:
      'How much of a torque becomes clamp: T = K \u00b7 d \u00b7 F. Oil lowers it; so the same torque stretches an oiled bolt more.',
  },
  { term: 'Lap', means: 'Two plates that overlap. The outside one is nearer the ground.', drawing: 'lap' },
  { term: 'Nesting', means: 'Laying blanks out on a stock sheet with little waste.' },
  { term: 'Preload', means: 'The pull a tightened bolt keeps. It is what holds the joint.' },
  {
    term: 'Prying',
    means:
      'A plate that bends under its bolt levers on its edge and pulls the bolt harder than the load alone.',
    drawing: 'prying',
  },
  {
    term: 'Rivet nut',
    means: 'A threaded insert set from one side with a tool; it bulges behind the sheet.',
    drawing: 'rivet-nut',
  },
  {
    term: 'Slot',
    means: 'A long hole that lets a plate be lined up, or lets plastic expand.',
    drawing: 'slot',
  },
  {
    term: 'Spacer',
    means: 'A tube on the bolt that holds the plate away from the frame.',
    drawing: 'spacer',
  },
  {
    term: 'Threaded post',
    means:
      'A spacer with a thread of its own and a stud: screwed into the hole, it stays up while the plate comes and goes.',
    drawing: 'post',
  },
  { term: 'Wheel rate', means: 'How much load at the wheel makes the body sink by a unit of height.' },
];
