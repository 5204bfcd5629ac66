import type { IncomingMessage } from 'node:http';
import type { Context } from 'koa';
import { Refusal } from '../fault';

const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'];
/** A phone makes its photos smaller before it sends them. */
const MOST_PHOTO = 3_000_000;

/** The first bytes by which each kind of picture is known. */
function looksLike(bytes: Buffer, type: string): boolean {
  if (type === 'image/jpeg') return bytes[0] === 0xff && bytes[1] === 0xd8;
  if (type === 'image/png') return bytes.subarray(1, 4).toString('latin1') === 'PNG';
  return (
    bytes.subarray(0, 4).toString('latin1') === 'RIFF' && bytes.subarray(8, 12).toString('latin1') === 'WEBP'
  );
}

/** All bytes of a request, no more than so many. What is over is read and dropped, or the sender would never hear why. */
export async function upTo(request: IncomingMessage, most: number, what = 'The photo'): Promise<Buffer> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of request) {
    length += (part as Buffer).length;
    if (length <= most) parts.push(part as Buffer);
    if (length > 10 * most) break;
  }
  if (length > most) throw new Refusal(413, `${what} is larger than ${most / 1e6} MB: it was not kept.`);
  return Buffer.concat(parts);
}

/** A photo as it was sent, checked by its first bytes. */
export async function sentPhoto(
  ctx: Context,
  id: string,
): Promise<{
  readonly id: string;
  readonly type: string;
  readonly bytes: Buffer;
  readonly receivedAt: number;
}> {
  const type = ctx.get('content-type').split(';')[0]?.trim() ?? '';
  if (!PHOTO_TYPES.includes(type))
    throw new Refusal(415, `A photo is one of ${PHOTO_TYPES.join(', ')}, not "${type}".`);
  if (id.length > 64) throw new Refusal(422, 'The id of the photo is too long.');
  const bytes = await upTo(ctx.req, MOST_PHOTO);
  if (!looksLike(bytes, type)) throw new Refusal(422, `The photo is torn: its bytes are not ${type}.`);
  return { id, type, bytes, receivedAt: Date.now() };
}

/** Heights of a scan: a grid of 6 million of them, packed, is well under this, bytes. */
const MOST_HEIGHTS = 12_000_000;

/** The heights of a scan as they were sent: packed by zlib, by their first byte. */
export async function sentHeights(ctx: Context, id: string): ReturnType<typeof sentPhoto> {
  if (id.length > 64) throw new Refusal(422, 'The id of the scan is too long.');
  const bytes = await upTo(ctx.req, MOST_HEIGHTS, 'The scan');
  if (bytes[0] !== 0x78)
    throw new Refusal(422, 'The scan is torn: its heights are not packed as they should be.');
  return { id, type: HEIGHTS_TYPE, bytes, receivedAt: Date.now() };
}
export const HEIGHTS_TYPE = 'application/octet-stream';

/** Answers with a photo that never changes. */
export function answerPhoto(
  ctx: Context,
  photo: { readonly type: string; readonly bytes: Buffer } | undefined,
): void {
  if (!photo) throw new Refusal(404, 'There is no such photo.');
  ctx.type = photo.type;
  ctx.set('cache-control', 'private, max-age=31536000, immutable');
  ctx.body = Buffer.from(photo.bytes);
}
