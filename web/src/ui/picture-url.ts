/** A picture's pixels as an address that an image can show; to be revoked. Undefined where the browser cannot. */
export async function pictureUrl(p: {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}): Promise<string | undefined> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [p.width, p.height];
  canvas.getContext('2d')?.putImageData(new ImageData(p.rgba, p.width, p.height), 0, 0);
  const blob = await new Promise<Blob | null>(done => canvas.toBlob(done));
  return blob ? URL.createObjectURL(blob) : undefined;
}
