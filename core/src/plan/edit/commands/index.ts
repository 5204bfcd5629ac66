import type { Command } from '../command';
import * as builds from './builds';
import * as crossbars from './crossbars';
import * as flanges from './flanges';
import * as joints from './joints';
import * as openings from './openings';
import * as phases from './phases';
import * as plates from './plates';
import * as rig from './rig';
import * as settings from './settings';

export * from './builds';
export * from './crossbars';
export * from './flanges';
export * from './joints';
export * from './openings';
export * from './phases';
export * from './plates';
export * from './rig';
export * from './settings';

const isCommand = (c: unknown): c is Command => typeof c === 'object' && c !== null && 'run' in c;

/** Every change that a plan alone decides. */
export const PLAN_COMMANDS: readonly Command[] = [
  builds,
  crossbars,
  flanges,
  joints,
  openings,
  phases,
  plates,
  rig,
  settings,
].flatMap(m => Object.values<unknown>(m).filter(isCommand));
