/** The longest side a photo is kept at, px, and the most the server takes, bytes. */
const SIDE = 1600;
const MOST = 3_000_000;

export interface SmallPhoto {
  readonly photo: Blob;
  readonly width: number;
  readonly height: number;
}

/** A photo made small enough to keep and to send, at most `side` px long. The fault says what is wrong with the file, and `otherwise`, what becomes of it. */
export async function smallPhoto(
  file: Blob,
  side: number = SIDE,
  otherwise = 'The note is saved without it.',
): Promise<SmallPhoto | { fault: string }> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return { fault: `This browser cannot read that file as a picture. ${otherwise}` };
  }
  const k = Math.min(1, side / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * k));
  canvas.height = Math.max(1, Math.round(picture.height * k));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const { width, height } = canvas;
  for (const quality of [0.88, 0.75, 0.6]) {
    const photo = await new Promise<Blob | null>(done => canvas.toBlob(done, 'image/jpeg', quality));
    if (!photo) return { fault: `The photo could not be made smaller. ${otherwise}` };
    if (photo.size <= MOST) return { photo, width, height };
  }
  return { fault: `The photo is larger than 3 MB even when made smaller. ${otherwise}` };
}
