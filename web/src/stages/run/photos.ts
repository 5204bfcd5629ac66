import { createStore, del, entries, get, set } from 'idb-keyval';

const store = () => createStore('plate-fold-photos', 'waiting');

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
