import { unit3, type Vec3 } from '../geometry';
import type { Mount } from '../rig';

/** Straight down, as most holes look. */
export const DOWN: Vec3 = [0, 0, -1];
/** The way out of the face that a hole is in, unit: straight down unless it is told otherwise. */
export const outwardOf = (mount: Pick<Mount, 'normal'> | undefined): Vec3 =>
  mount?.normal ? unit3(mount.normal) : DOWN;

/** Whether a hole looks down, more or less: reached from below, as most are. */
export const looksDown = (mount: Pick<Mount, 'normal'> | undefined): boolean => outwardOf(mount)[2] < -0.7;
