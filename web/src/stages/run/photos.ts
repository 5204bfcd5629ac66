import { createStore, del, entries, get, set } from 'idb-keyval';

/** The longest side a photo is kept at, px, and the most the server takes, bytes. */
const SIDE = 1600;
const MOST = 3_000_000;

const store = () => createStore('plate-fold-photos', 'waiting');

/** A photo made small enough to keep and to send. The fault says what is wrong with the file. */
export async function smallPhoto(file: Blob): Promise<{ photo: Blob } | { fault: string }> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return { fault: 'That file is no picture this browser can read. The note is kept without it.' };
  }
  const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * k));
  canvas.height = Math.max(1, Math.round(picture.height * k));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const photo = await new Promise<Blob | null>(done => canvas.toBlob(done, 'image/jpeg', 0.8));
  if (!photo) return { fault: 'The photo could not be made smaller. The note is kept without it.' };
  if (photo.size > MOST)
    return { fault: 'The photo is larger than 3 MB even when made smaller. The note is kept without it.' };
  return { photo };
}

/** Keeps a photo on this device until the server has it; false where there is no room. */
export async function keepPhoto(run: string, id: string, photo: Blob): Promise<boolean> {
  try {
    await set(`${run} ${id}`, photo, store());
    return true;
  } catch {
    return false;
  }
}

/** Photos of a run that wait on this device. */
export async function waitingPhotos(
  run: string,
): Promise<readonly { readonly id: string; readonly photo: Blob }[]> {
  try {
    const all = await entries<string, Blob>(store());
    return all
      .filter(([key]) => key.startsWith(`${run} `))
      .map(([key, photo]) => ({ id: key.slice(run.length + 1), photo }));
  } catch {
    return [];
  }
}

export const waitingPhoto = (run: string, id: string): Promise<Blob | undefined> =>
  get<Blob>(`${run} ${id}`, store()).catch(() => undefined);

export const dropPhoto = (run: string, id: string): Promise<void> => del(`${run} ${id}`, store());
