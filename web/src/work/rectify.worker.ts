import { type Camera, type Ground, type Picture, rectified } from '@plate-fold/core/survey';
import { expose, transfer } from 'comlink';

const worker = {
  rectify: (picture: Picture, camera: Camera, ground: Ground, z: number): Picture => {
    const made = rectified(picture, camera, ground, z);
    return transfer(made, [made.rgba.buffer]);
  },
};
export type RectifyWorker = typeof worker;
expose(worker);
