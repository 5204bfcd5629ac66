/** Usual cautions, shown at the step where they matter. They defer to the vehicle maker and local rules. */
export const CAUTIONS = {
  stands:
    'Never work under a vehicle on a jack alone: stands in pairs on level, hard ground, under the points its maker names.',
  ramps:
    'Nobody stands in front of or behind a vehicle on ramps. Drive up with a helper who watches, and stop at the first slip.',
  lift: 'Only lift under the points the vehicle maker names, and never work under it before its locks have dropped in.',
  side: 'Tip a side-by-side only with several people or a winch and straps, tied so that it can fall neither way. Nobody is between it and the ground.',
  sideFluids:
    'On its side fuel, oil, battery acid and brake fluid run where they should not: tank empty and its vent closed, battery out, and no longer than the maker allows. Before starting, let the oil run back and check that no oil stands in the air box or on the plugs.',
  maker: 'The vehicle maker\u2019s torque values and local rules come before ours.',
  fuel: 'Fuel: no sparks, ventilate, battery off, tank nearly empty. Leave it to a shop if lines must be opened.',
  hot: 'Let the exhaust cool before you reach past it.',
  hotOil: 'Hot oil burns: gloves on, and catch all of it. Take it where used oil is taken back.',
  eyes: 'Eye protection when drilling overhead. Know what is behind; drill slowly and no deeper than the metal.',
  bench:
    'Eye protection when drilling. Clamp the plate down first: a bit that grabs spins it, and its edges cut.',
  notMeant:
    'No jack and no recovery strap on a plate that is not made for it: it folds, and drops the vehicle.',
  heavy: 'Heavier than one person should lift: a jack with a wooden block, or a helper.',
  overhead:
    'Too heavy for one person to hold overhead: the jack carries it until two bolts are in, or a helper does.',
  voltage: 'High voltage: stay away from orange cables; leave it to a trained technician.',
  weld: 'Welding on a frame, near fuel or wiring, is for a licensed shop.',
  hand: 'Start every bolt by hand. A bolt that will not turn by hand is cross-threaded.',
  noImpact:
    'By hand with the torque wrench: no impact wrench on the last of it, none at all on rivet nuts, tapped sheet and stainless.',
  spins: 'Stop if it turns without getting tighter: the nut is stripping.',
  estimate: 'Torque is computed from bolt, nut and finish: an estimate, not a certificate.',
} as const;
