export * from './check';
export {
  byGravity,
  type Finding,
  plateName,
  type Remedy,
  type Rule,
  type Severity,
  type Unsigned,
  type Where,
  type Words,
  wordsIn,
} from './finding';
export * from './fit';
export * from './glance';
export * from './mended';
export { environmentOf, MOST_APART, metalsApart } from './rules/dissimilar-metals';
export { exposureOf, leastSteelOf } from './rules/least-thickness';
export * from './struck';
export * from './vetted';
