/** The longest side a photo is kept at, px, and the most the server takes, bytes. */
const SIDE = 1600;
const MOST = 3_000_000;

/** A photo made small enough to keep and to send. The fault says what is wrong with the file. */
export async function smallPhoto(file: Blob): Promise<{ photo: Blob } | { fault: string }> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return { fault: 'This browser cannot read that file as a picture. The note is saved without it.' };
  }
  const k = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * k));
  canvas.height = Math.max(1, Math.round(picture.height * k));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  const photo = await new Promise<Blob | null>(done => canvas.toBlob(done, 'image/jpeg', 0.8));
  if (!photo) return { fault: 'The photo could not be made smaller. The note is saved without it.' };
  if (photo.size > MOST)
    return { fault: 'The photo is larger than 3 MB even when made smaller. The note is kept without it.' };
  return { photo };
}
