/** How a figure is come by, for whoever wants to know before a hole is drilled by it. */
export interface Explained {
  /** what it is called on the screen */
  readonly name: string;
  /** the formula, in words */
  readonly formula: string;
  /** what goes into it */
  readonly from: string;
  /** where the formula is published; "common practice" where it is in no book */
  readonly source: string;
  /** what of it is an estimate or a guess; nothing where it is exact for what was entered */
  readonly estimated?: string;
}

const DRAWN = 'the plates as drawn, their sheet, bends, openings and bolt holes';
const MEASURED = 'the vehicle’s measurements and the plates as they hang';
const STRIKE_LEAVES_OUT =
  'The whole of it: loads are nominal, friction and bearing of the joints are common practice, and welds, fatigue, loose bolts and the give of the frame are left out.';
const SHELL =
  'Flat shell elements (Katili 1993, Felippa 2003) with large moves (Nour-Omid and Rankin 1991) and yielding in six layers (Simo and Taylor 1986); held against solutions of an independent program.';

/**
 * Every kind of figure that the program computes, by a code that screens name it with. The method in full is in docs/method.md.
 */
export const EXPLAINED = {
  'net-mass': {
    name: 'Net mass',
    formula: 'Mass of all plates, crossbars and hardware, less the mass of the factory parts that come off.',
    from: `${DRAWN}; bolts, nuts, washers and spacers by their dimensions; factory parts as entered`,
    source: 'Volume times density; densities typical of the material (Machinery’s Handbook).',
    estimated: 'Mass of hardware leaves out heads’ rounding and drive; paint is not counted.',
  },
  'plate-mass': {
    name: 'Mass of a plate',
    formula:
      'Area of the flat blank (flats, and bends along their neutral fiber), less openings and bolt holes, times thickness, times density.',
    from: DRAWN,
    source: 'Volume times density; neutral fiber by DIN 6935 or the shop’s own K.',
  },
  'hardware-mass': {
    name: 'Hardware',
    formula: 'Volume of every bolt, nut, washer and spacer times the density of steel.',
    from: 'sizes by the standards of each part (ISO 4017, ISO 4032, ISO 7089, ASME B18.2.1 and others)',
    source: 'Volume times density.',
    estimated: 'Rounded edges, drives and threads are simplified.',
  },
  'removed-mass': {
    name: 'Factory parts to remove',
    formula: 'The sum of their masses.',
    from: 'the masses entered on Rig',
    source: 'Weighed or entered by you.',
  },
  covered: {
    name: 'Coverage from below',
    formula:
      'Share of a part’s outline that lies over sheet, seen straight from below; openings count as open, louvers by their share.',
    from: 'outlines of the parts and the plates as drawn',
    source: 'Plane geometry, exact for what is drawn.',
  },
  'from-ahead': {
    name: 'Coverage from ahead',
    formula:
      'The same along a ray that climbs rearward at your angle; only sheet below the part’s underside stands in the way.',
    from: 'outlines and heights of the parts, the plates as drawn, the climb you set',
    source: 'Plane geometry; the 20° it starts with are common practice.',
  },
  'lowest-point': {
    name: 'Lowest point',
    formula: 'The lowest of all plates, bolt heads and parts above the ground, at rest.',
    from: MEASURED,
    source: 'Geometry, exact for what was entered.',
  },
  'gap-at-rest': {
    name: 'Clearance at rest',
    formula:
      'Upright distance from a plate’s upper face to the underside of the part above it, where it is least.',
    from: MEASURED,
    source: 'Geometry, exact for what was entered.',
    estimated: 'Parts are boxes over their outline; what was not measured is assumed.',
  },
  breakover: {
    name: 'Approach, breakover and departure',
    formula:
      'Tangents from the tires, standing under load, to everything of the underside between and beyond them.',
    from: MEASURED,
    source: 'SAE J1100 H106, H107, H147.',
  },
  'axle-load': {
    name: 'Added on an axle',
    formula: 'Moments of every added and removed mass about the other axle, divided by the wheelbase.',
    from: 'masses and centers of the plates, bars, hardware and factory parts; the wheelbase',
    source: 'Statics.',
  },
  'ride-height': {
    name: 'Ride height and rake',
    formula:
      'Change of the axle’s load divided by twice the wheel rate; rake is the difference of the two ends.',
    from: 'the axle loads and the wheel rates on Rig',
    source: 'Statics.',
    estimated: 'Wheel rates are assumed until you measure heights before and after.',
  },
  'side-load': {
    name: 'Right over left',
    formula: 'Moments of all masses about the center line, divided by half the track.',
    from: 'masses and centers; the track width',
    source: 'Statics.',
  },
  'cost-sheet': {
    name: 'Sheet',
    formula: 'Mass of every plate times the price per mass of its sheet.',
    from: 'plate masses; your rates',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  'cost-cutting': {
    name: 'Cutting',
    formula: 'Length of all cuts times thickness times the rate.',
    from: 'edges, openings and bolt holes of the blank; your rates',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  'cost-bending': {
    name: 'Bending',
    formula: 'Number of bends times the rate.',
    from: 'the bends as drawn; your rates',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  'cost-finish': {
    name: 'Finish',
    formula: 'Area of the blanks times the rate of their finish.',
    from: 'blank areas; your rates',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  'cost-hardware': {
    name: 'Bolts and bars',
    formula: 'Mass and number of pieces, each times its rate, and crossbars by mass.',
    from: 'the hardware of every joint; your rates',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  cost: {
    name: 'Cost',
    formula:
      'Sheet, cutting, bends and finish of every plate (or a shop’s offer instead), hardware, crossbars, shipping, and tax on the goods.',
    from: 'the plates as drawn; your rates, offers, shipping and tax',
    source: 'Your entries.',
    estimated: 'Rates nobody entered are invented defaults; the price says so.',
  },
  'stock-sheets': {
    name: 'Stock sheets',
    formula:
      'Blanks laid by their true shape on the shop’s sheets, three orders tried, the least sheet kept.',
    from: 'the blanks, the kerf, the shop’s sheet sizes',
    source: 'No-fit outlines (Minkowski sums).',
    estimated: 'Not proven to be the fewest possible.',
  },
  'least-radius': {
    name: 'Least radius',
    formula: 'The material’s least inside radius in thicknesses, times the thickness; more along the grain.',
    from: 'material, thickness, how the bend runs to the grain',
    source: 'Producers’ bend data, from memory.',
    estimated: 'Along the grain 1 to 1.5 times as much: common practice.',
  },
  'bend-to': {
    name: 'Bend to',
    formula:
      'The angle to bend to so that it springs back to the wanted one, the middle fiber keeping its length.',
    from: 'angle, inside radius, thickness, yield strength and modulus, width of the die',
    source:
      'Round the punch Ri/Rf = 4(Ri·Y/ET)³ − 3(Ri·Y/ET) + 1 (Kalpakjian and Schmid); the legs over the die by 1.5·Y·V/(E·T) (Timoshenko).',
    estimated: 'Yield strength is the catalog’s; a test bend tells more.',
  },
  'k-factor': {
    name: 'K',
    formula: 'Where the fiber lies that keeps its length, as a share of the thickness from the inside.',
    from: 'inside radius over thickness; the shop’s own table or a test bend where entered',
    source: 'DIN 6935: k = 0.65 + 0.5·log₁₀(R/t), K = k/2.',
    estimated: 'A brake’s own K differs with die and sheet.',
  },
  'bend-force': {
    name: 'Force of the brake',
    formula: '1.42 × tensile strength × thickness² × length of the bend ÷ width of the die.',
    from: 'sheet, bend and the shop’s narrowest die of at least 8 thicknesses',
    source: 'Brake makers’ charts.',
    estimated: 'Inch charts stand some 10 % higher.',
  },
  'least-flange': {
    name: 'Least flange',
    formula: 'Width of the die divided by the square root of two.',
    from: 'the shop’s die for this sheet',
    source: 'Brake makers’ charts.',
  },
  allowance: {
    name: 'Bend allowance',
    formula: 'Angle × π/180 × (inside radius + K × thickness).',
    from: 'the bend, the sheet, K',
    source: 'Machinery’s Handbook.',
  },
  deduction: {
    name: 'Bend deduction',
    formula: 'Twice the outside set-back less the allowance.',
    from: 'the bend, the sheet, K',
    source: 'Machinery’s Handbook.',
  },
  reliefs: {
    name: 'Reliefs',
    formula: 'One beside a bend that ends within its edge, and one where two bends leave the same corner.',
    from: 'the flanges as drawn',
    source: 'Design guides for sheet metal.',
  },
  deflection: {
    name: 'Deflection',
    formula:
      'How far the plate moves at the struck place under the load, bent, stretched and yielding as far as it does.',
    from: 'the folded plate, its sheet, bolts and crossbars; half the heavier axle on 3.15 in (80 mm) square unless another load is chosen',
    source: SHELL,
    estimated: STRIKE_LEAVES_OUT,
  },
  fall: {
    name: 'Struck with',
    formula:
      'The force that stops the fall: what the plate takes up on its way (the area under force and deflection) is the weight times the height and the deflection.',
    from: 'half the heavier axle, the height of the fall, the plate as it bends, stretches and yields',
    source:
      'Work and energy (Timoshenko, Strength of Materials, part I): let go as it touches, it counts twice.',
    estimated:
      'Nothing gives but the plate: tires, springs and frame would take some of it up. The plate’s own mass is left out.',
  },
  'gap-struck': {
    name: 'Clearance under a strike',
    formula:
      'The clearance at rest less what the plate moves there; below nought it is driven into the part.',
    from: 'the struck plate and the parts above it',
    source: SHELL,
    estimated: STRIKE_LEAVES_OUT,
  },
  stress: {
    name: 'Stress',
    formula:
      'The greatest of the stress by von Mises away from bolts and rock, as a share of the yield strength.',
    from: 'the struck plate; yield strength of its sheet',
    source: SHELL,
    estimated: STRIKE_LEAVES_OUT,
  },
  dent: {
    name: 'Dent',
    formula: 'What stays when the load is taken off again along the same way.',
    from: 'the struck plate; yield strength and a hardening of E/200 (assumed)',
    source: SHELL,
    estimated: `Within 8 % by the mesh alone. ${STRIKE_LEAVES_OUT}`,
  },
  'dents-from': {
    name: 'Dents from',
    formula:
      'The force that leaves 2 mm (0.08 in) at the struck place, between two loads taken off on the way up.',
    from: 'the struck plate',
    source: SHELL,
    estimated: `That 2 mm is what an owner sees is common practice. ${STRIKE_LEAVES_OUT}`,
  },
  'sharp-rock': {
    name: 'Sharp rock',
    formula:
      'The force that shears a round hole of 25 mm (1 in) out of the sheet: π × 25 mm × thickness × shear strength.',
    from: 'thickness and shear strength of the sheet; a nose of 25 mm (1 in), assumed',
    source: 'Punching pressure, as handbooks for the machine shop have it.',
    estimated:
      'An upper bound: a nose that is not flat tears the sheet sooner. The simulated rock is blunt, 80 mm (3 in) square.',
  },
  vibration: {
    name: 'Lowest vibration',
    formula: 'The lowest natural frequency of the plate held by its bolts.',
    from: 'stiffness and mass of the plate, bolts and crossbars',
    source: 'Inverse iteration on the same shell, with lumped mass.',
    estimated: 'That what is below 40 Hz may drum is common practice.',
  },
  shaken: {
    name: 'Shaken by the road',
    formula:
      'The stress round its bolts as the road shakes the plate in its lowest vibration, three times the rms, by the endurance limit of its sheet.',
    from: 'the lowest vibration and its shape; a car body’s shaking; 0.4 of the tensile strength of steel, 0.35 of aluminum',
    source: 'Miles 1954; ISO 16750-3, random vibration of sprung masses, from memory.',
    estimated:
      'It compares sheets and builds and predicts no life: damping of 3 % is assumed, edges of holes, loose bolts and rust are not in it.',
  },
  'joint-share': {
    name: 'Joint under a strike',
    formula:
      'Pull and shear of the worst bolt, prying with it, each as a share of what the joint bears, the two together.',
    from: 'what the strike brings to every bolt; bolt, nut, head, sheet and member',
    source: 'AISC Steel Construction Manual part 9 (prying), RCSC (pull and shear together), from memory.',
    estimated: STRIKE_LEAVES_OUT,
  },
  'bracket-struck': {
    name: 'What a plate is bolted to, under a strike',
    formula:
      'The stress of von Mises in the worst bracket, or plate that it is bolted to, away from its bolts, by its yield strength; it is solved with its plate, as sheet that stays elastic.',
    from: 'what the strike brings to the bolts between the two; sheet, bends and bolts of the bracket or plate',
    source: `${SHELL} Condensed to its bolts and feet (Guyan 1965).`,
    estimated: STRIKE_LEAVES_OUT,
  },
  collapse: {
    name: 'Plates that collapse',
    formula: 'Plates that move 90 mm (3.5 in) before they bear the load.',
    from: 'the struck plates',
    source: SHELL,
    estimated: STRIKE_LEAVES_OUT,
  },
  torque: {
    name: 'Torque',
    formula: 'K × diameter × clamp, and half of what the lock nut asks for by itself.',
    from: 'thread, strength class, finish and lubricant; the weakest of bolt, nut, head and sheet',
    source: 'T = K·d·F (Shigley 8-27, K from its table 8-15); a value you enter wins.',
    estimated:
      'K is never known closely: the same torque may clamp a quarter to a third more or less (NASA RP-1228).',
  },
  clamp: {
    name: 'Clamp',
    formula: 'Three quarters of the bolt’s proof load, or less where head, nut, thread or sheet bears less.',
    from: 'thread, strength class, nut and sheet',
    source: 'Shigley 8-31; ISO 898-1, SAE J429, ISO 3506-1.',
    estimated: 'See K under Torque.',
  },
  grip: {
    name: 'Grip',
    formula: 'Thickness of all that the bolt clamps: plates, washers, spacer and the wall of the member.',
    from: 'the sheets of this build, hardware, the member’s wall as measured',
    source: 'Addition, exact for what was entered.',
  },
  'bolt-length': {
    name: 'Length of the bolt',
    formula:
      'Grip, nut and two pitches (into a threaded post: grip and one diameter), to the next length that is stocked.',
    from: 'the grip and the nut’s height',
    source: 'ISO 888 and inch series; two pitches past the nut are common practice.',
  },
  protrusion: {
    name: 'Thread past the nut',
    formula: 'Length of the bolt less grip and nut; with a threaded post, less the grip alone.',
    from: 'the bolt as bought',
    source: 'Subtraction.',
  },
} as const satisfies Readonly<Record<string, Explained>>;

export type FigureId = keyof typeof EXPLAINED;
