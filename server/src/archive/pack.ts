import { ARCHIVE_LIMITS, type Archive, archiveFiles, readArchive } from '@plate-fold/core/formats';
import { type AsyncZippable, unzip, zip } from 'fflate';
import { Refusal } from '../fault';

/** What is packed already and gains nothing by it. */
const PACKED = /\.(jpg|png|webp)$/;

/** A date that a zip file can say. */
const dated = (ms: number): Date => new Date(Math.min(Math.max(ms, Date.UTC(1981, 0)), Date.UTC(2099, 0)));

/** An archive as one zip file. Packing is left to another thread. */
export function packed(archive: Archive): Promise<Uint8Array> {
  const files: AsyncZippable = Object.fromEntries(
    Object.entries(archiveFiles(archive)).map(([path, bytes]) => [
      path,
      [bytes, { level: PACKED.test(path) ? 0 : 6, mtime: dated(archive.madeAt) }] as const,
    ]),
  );
  return new Promise((done, fail) =>
    zip(files, { consume: false }, (e, bytes) => (e ? fail(e) : done(bytes))),
  );
}

/** The archive in a zip file. A Refusal that says what is wrong and where, when it is none, is torn, or swells beyond its bounds. */
export async function unpacked(bytes: Uint8Array): Promise<Archive> {
  let size = 0;
  let count = 0;
  const files = await new Promise<Record<string, Uint8Array>>((done, fail) =>
    unzip(
      bytes,
      {
        filter: f => {
          size += f.originalSize;
          count++;
          return size <= ARCHIVE_LIMITS.bytes && count <= ARCHIVE_LIMITS.files && !f.name.endsWith('/');
        },
      },
      (e, all) => (e ? fail(new Refusal(422, 'This is not a whole zip file: it may be torn.')) : done(all)),
    ),
  );
  if (size > ARCHIVE_LIMITS.bytes || count > ARCHIVE_LIMITS.files)
    throw new Refusal(
      413,
      `The archive unpacks to more than ${ARCHIVE_LIMITS.bytes / 1e6} MB or ${ARCHIVE_LIMITS.files} files: nothing was changed.`,
    );
  const read = readArchive(files);
  if (read.ok) return read.archive;
  const first = read.faults[0];
  throw new Refusal(422, `The archive was not taken: ${first?.path} ${first?.fault}. Nothing was changed.`, {
    faults: read.faults,
  });
}
