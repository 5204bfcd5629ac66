export * from './best-build';
export * from './check';
export * from './facts';
export {
  byGravity,
  type Finding,
  plateName,
  type Remedy,
  type Rule,
  type Severity,
  type Where,
  type Words,
  wordsIn,
} from './finding';
export * from './hardware-change';
export * from './ladder';
export * from './option-effect';
export * from './profile';
export * from './struck';
export * from './vetted';
