import type { Camera, Ground, Picture } from '@plate-fold/core/survey';
import { inWorker, type Job } from './job';
import type { RectifyWorker } from './rectify.worker';

/** Lays a picture on the ground plane at a height in a worker of its own. */
export const rectifyInWorker = (picture: Picture, camera: Camera, ground: Ground, z: number): Job<Picture> =>
  inWorker<RectifyWorker, Picture>(
    new Worker(new URL('./rectify.worker.ts', import.meta.url), { type: 'module' }),
    w => w.rectify(picture, camera, ground, z),
  );
