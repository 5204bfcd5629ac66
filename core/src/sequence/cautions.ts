/** Usual cautions, shown at the step where they matter. They defer to the vehicle maker and local rules. */
export const CAUTIONS = {
  stands:
    'Never work under a vehicle on a jack alone: stands in pairs on level, hard ground, wheels chocked.',
  maker: 'The vehicle maker\u2019s torque values and local rules come before ours.',
  fuel: 'Fuel: no sparks, ventilate, battery off, tank nearly empty. Leave it to a shop if lines must be opened.',
  hot: 'Let the exhaust cool before you reach past it.',
  eyes: 'Eye protection when drilling overhead. Know what is behind; drill slowly and no deeper than the metal.',
  heavy: 'Heavier than one person should lift: a jack with a wooden block, or a helper.',
  voltage: 'High voltage: stay away from orange cables; leave it to a trained technician.',
  hand: 'Start every bolt by hand. A bolt that will not turn by hand is cross-threaded.',
  noImpact: 'By hand with the torque wrench: no impact wrench on the last of it, none at all on rivet nuts.',
  estimate: 'Torque is computed from bolt, nut and finish: an estimate, not a certificate.',
} as const;
