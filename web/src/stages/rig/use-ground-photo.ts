import { type Adjustment, groundRound, type Picture } from '@plate-fold/core/survey';
import { useEffect, useState } from 'react';
import type { GroundPhoto } from '../../picture/laid-out';
import { pictureUrl } from '../../ui/picture-url';
import { rectifyInWorker } from '../../work/rectify-client';

/** How far round the survey's points a picture is laid out, mm. */
const ROOM = 350;

/** Where a survey's picture is kept. */
export const photoAt = (plan: string, id: string): string =>
  `/api/documents/${encodeURIComponent(plan)}/photos/${encodeURIComponent(id)}`;

/** A picture's pixels. @throws Error where it is not there or is none */
async function pixelsOf(url: string): Promise<Picture> {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error('The picture itself is not with this plan.');
  const bitmap = await createImageBitmap(await answer.blob());
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [bitmap.width, bitmap.height];
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) throw new Error('This browser cannot read pictures.');
  pen.drawImage(bitmap, 0, 0);
  bitmap.close();
  const { width, height, data } = pen.getImageData(0, 0, canvas.width, canvas.height);
  return { width, height, rgba: data as Uint8ClampedArray<ArrayBuffer> };
}

/** A picture of the survey as it looks from straight below at a height, mm; empty while it is made, and where none is asked for. */
export function useGroundPhoto(
  plan: string,
  a: Adjustment,
  of: { readonly photo: string; readonly z: number } | undefined,
): GroundPhoto {
  const [made, setMade] = useState<GroundPhoto>({});
  const photo = of?.photo;
  const z = of?.z ?? 0;
  useEffect(() => {
    const camera = a.photos.find(p => p.id === photo);
    const kept = a.solution.net.survey.photos.find(p => p.id === photo);
    const [first, ...rest] = a.points.map(p => [p.at[0], p.at[1]] as const);
    if (photo === undefined || !camera || !kept || !first) {
      setMade({});
      return;
    }
    let gone = false;
    let url: string | undefined;
    let stop = (): void => {};
    const ground = groundRound([first, ...rest], ROOM);
    const make = async (): Promise<void> => {
      try {
        const picture = await pixelsOf(photoAt(plan, photo));
        if (gone) return;
        // marks count in the pixels that the picture was marked at
        const k = picture.width / kept.width;
        const job = rectifyInWorker(picture, { ...camera, focalPx: camera.focalPx * k }, ground, z);
        stop = job.cancel;
        const flat = await job.result;
        const shown = await pictureUrl(flat);
        if (!shown) return;
        if (gone) return URL.revokeObjectURL(shown);
        url = shown;
        setMade({ url, ground });
      } catch (e) {
        if (!gone) setMade({ fault: (e as Error).message });
      }
    };
    void make();
    return () => {
      gone = true;
      stop();
      if (url) URL.revokeObjectURL(url);
    };
  }, [plan, a, photo, z]);
  return made;
}
