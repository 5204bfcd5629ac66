import { changedKit, EMPTY_KIT, type KitChange, type KitState } from '../bolt';
import { type LogEntry, readLogEntry } from '../log';
import { checkDocument, type Fault, type PlanDocument } from '../plan';
import { readTick, type Tick } from '../sequence';

/** Names an archive's form; a later form has another number. */
export const ARCHIVE_FORMAT = 'plate-fold-archive/1';
/** Bytes of an archive's files, unpacked, and how many of them there are at most. */
export const ARCHIVE_LIMITS = { bytes: 500_000_000, files: 50_000 } as const;

export interface ArchivedPhoto {
  readonly id: string;
  readonly type: string;
  readonly bytes: Uint8Array;
  readonly receivedAt: number;
}
export interface ArchivedRun {
  readonly id: string;
  readonly revision: number;
  readonly buildId: string;
  readonly service: string | null;
  readonly startedAt: number;
  readonly endedAt: number | null;
  readonly setAsideAt: number | null;
  readonly document: PlanDocument;
  readonly ticks: readonly (Tick & { readonly receivedAt: number })[];
  readonly photos: readonly ArchivedPhoto[];
}
export interface ArchivedPlan {
  readonly revision: number;
  readonly updatedAt: number;
  readonly document: PlanDocument;
  /** oldest first; none unless they were asked for */
  readonly versions: readonly {
    readonly revision: number;
    readonly kind: 'saved' | 'refused';
    readonly savedAt: number;
    readonly document: PlanDocument;
  }[];
  readonly runs: readonly ArchivedRun[];
  readonly log: readonly {
    readonly entry: LogEntry;
    readonly struckAt: number | null;
    readonly receivedAt: number;
  }[];
  readonly logPhotos: readonly ArchivedPhoto[];
  /** pictures on which the survey is marked; an archive of before there were any has none */
  readonly surveyFiles: readonly ArchivedPhoto[];
  readonly kits: readonly { readonly buildId: string; readonly kit: KitState; readonly updatedAt: number }[];
}
export interface ArchivedShelf {
  readonly kind: 'part' | 'wrench';
  readonly name: string;
  readonly count: number;
  readonly low: number | null;
  readonly high: number | null;
  readonly updatedAt: number;
}
/** Everything that is kept of some plans, and the shelf where all plans are in it. */
export interface Archive {
  /** ms */
  readonly madeAt: number;
  readonly plans: readonly ArchivedPlan[];
  readonly shelf?: readonly ArchivedShelf[];
}

/** The files of an archive by their paths, before they are packed into one. */
export type ArchiveFiles = Readonly<Record<string, Uint8Array>>;
export type ReadArchive =
  | { readonly ok: true; readonly archive: Archive }
  | { readonly ok: false; readonly faults: readonly Fault[] };

const ENDINGS: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  // the heights of a scan
  'application/octet-stream': 'bin',
};

const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c;
});
/** The check sum of ISO 3309, as zip files use it: the unpacking package does not look at theirs. */
export function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = (TABLE[(c ^ b) & 255] as number) ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

const text = (value: unknown): Uint8Array => new TextEncoder().encode(`${JSON.stringify(value, null, 1)}\n`);
/** A name that is one step of a path on every system. */
const step = (id: string): string =>
  encodeURIComponent(id).replace(/[.*'()!~]/g, c => `%${c.charCodeAt(0).toString(16)}`);

interface Listed {
  readonly path: string;
  readonly size: number;
  readonly crc32: number;
}

/** The files of an archive (docs/plan-file.md): a manifest with a check sum of each, documents as they are saved, photos as they are. */
export function archiveFiles({ madeAt, plans, shelf }: Archive): ArchiveFiles {
  const files: Record<string, Uint8Array> = {};
  const photosOf = (folder: string, photos: readonly ArchivedPhoto[]) =>
    photos.map(({ bytes, ...photo }) => {
      const path = `${folder}/photos/${step(photo.id)}.${ENDINGS[photo.type] ?? 'bin'}`;
      files[path] = bytes;
      return { ...photo, path };
    });
  for (const plan of plans) {
    const folder = `plans/${step(plan.document.plan.id)}`;
    files[`${folder}/plan.platefold.json`] = text(plan.document);
    files[`${folder}/kept.json`] = text({
      revision: plan.revision,
      updatedAt: plan.updatedAt,
      log: plan.log,
      logPhotos: photosOf(`${folder}/log`, plan.logPhotos),
      surveyFiles: photosOf(`${folder}/survey`, plan.surveyFiles),
      kits: plan.kits,
      runs: plan.runs.map(r => r.id),
      versions: plan.versions.length,
    });
    plan.versions.forEach((v, i) => {
      files[`${folder}/versions/${i}.json`] = text(v);
    });
    for (const { photos, ...run } of plan.runs)
      files[`${folder}/runs/${step(run.id)}.json`] = text({
        ...run,
        photos: photosOf(`${folder}/runs/${step(run.id)}`, photos),
      });
  }
  if (shelf) files['shelf.json'] = text(shelf);
  const listed = Object.entries(files).map(
    ([path, bytes]): Listed => ({ path, size: bytes.length, crc32: crc32(bytes) }),
  );
  return {
    'manifest.json': text({
      format: ARCHIVE_FORMAT,
      madeAt,
      plans: plans.map(p => p.document.plan.id),
      files: listed,
    }),
    ...files,
  };
}

/** Thrown where an archive is not what it should be; caught where it is read. */
class Torn extends Error {
  constructor(
    readonly path: string,
    readonly fault: string,
    readonly more: readonly Fault[] = [],
  ) {
    super(fault);
  }
}

type Loose = Readonly<Record<string, unknown>>;
const whole = (v: unknown): v is number => typeof v === 'number' && Number.isSafeInteger(v) && v >= 0;
const short = (v: unknown, most = 200): v is string =>
  typeof v === 'string' && v.length > 0 && v.length <= most;

/**
 * Reads the files of an archive. Every document, entry and tick in it is checked as if it came one by one; nothing of an archive that is
 * torn or wrong anywhere is taken, and every fault names the file it is in.
 */
export function readArchive(files: ArchiveFiles): ReadArchive {
  try {
    return { ok: true, archive: archiveOf(files) };
  } catch (e) {
    if (e instanceof Torn)
      return { ok: false, faults: e.more.length > 0 ? e.more : [{ path: e.path, fault: e.fault }] };
    throw e;
  }
}

function archiveOf(files: ArchiveFiles): Archive {
  const bytesAt = (path: string): Uint8Array => {
    const bytes = Object.hasOwn(files, path) ? files[path] : undefined;
    if (!bytes) throw new Torn(path, 'is missing from the archive');
    return bytes;
  };
  const jsonAt = (path: string): unknown => {
    try {
      return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytesAt(path)));
    } catch (e) {
      if (e instanceof Torn) throw e;
      throw new Torn(path, 'is not whole JSON: the archive may be torn');
    }
  };
  const groupAt = (path: string): Loose => {
    const value = jsonAt(path);
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      throw new Torn(path, 'is not a group of keys');
    return value as Loose;
  };
  const manifest = groupAt('manifest.json');
  if (manifest.format !== ARCHIVE_FORMAT)
    throw new Torn(
      'manifest.json',
      `has the format "${String(manifest.format).slice(0, 40)}"; this version reads "${ARCHIVE_FORMAT}" only`,
    );
  const list = (path: string, v: unknown, what: string): readonly unknown[] => {
    if (!Array.isArray(v)) throw new Torn(path, `${what} is not a list`);
    return v;
  };
  for (const f of list('manifest.json', manifest.files, 'files') as readonly Partial<Listed>[]) {
    const bytes = bytesAt(String(f?.path));
    if (bytes.length !== f.size || crc32(bytes) !== f.crc32)
      throw new Torn(String(f.path), 'is not as it was packed: the archive is torn');
  }
  const time = (path: string, v: unknown, what: string): number => {
    if (!whole(v)) throw new Torn(path, `${what} is not a time`);
    return v;
  };
  const timeOrNot = (path: string, v: unknown, what: string): number | null =>
    v === null || v === undefined ? null : time(path, v, what);
  const documentOf = (path: string, v: unknown): PlanDocument => {
    const read = checkDocument(v);
    if (!read.ok)
      throw new Torn(
        path,
        '',
        read.faults.map(f => ({ path: `${path}: ${f.path}`, fault: f.fault })),
      );
    return read.document;
  };
  const photosOf = (path: string, v: unknown): ArchivedPhoto[] =>
    (list(path, v, 'photos') as readonly Loose[]).map(p => {
      if (!short(p?.id) || !short(p.type) || ENDINGS[p.type] === undefined || typeof p.path !== 'string')
        throw new Torn(path, 'has a photo without an id, or of another kind than jpeg, png and webp');
      return {
        id: p.id,
        type: p.type,
        bytes: bytesAt(p.path),
        receivedAt: time(path, p.receivedAt, 'receivedAt'),
      };
    });

  const planOf = (id: unknown): ArchivedPlan => {
    if (!short(id)) throw new Torn('manifest.json', 'names a plan without an id');
    const folder = `plans/${step(id)}`;
    const at = `${folder}/plan.platefold.json`;
    const document = documentOf(at, jsonAt(at));
    if (document.plan.id !== id) throw new Torn(at, `is the plan "${document.plan.id}", not "${id}"`);
    const path = `${folder}/kept.json`;
    const kept = groupAt(path);
    if (!whole(kept.versions)) throw new Torn(path, 'versions is not a count');
    if (!whole(kept.revision)) throw new Torn(path, 'revision is not a whole number');
    return {
      revision: kept.revision,
      updatedAt: time(path, kept.updatedAt, 'updatedAt'),
      document,
      versions: Array.from({ length: Math.min(kept.versions, 10_000) }, (_, i) => {
        const where = `${folder}/versions/${i}.json`;
        const v = groupAt(where);
        if (!whole(v.revision) || (v.kind !== 'saved' && v.kind !== 'refused'))
          throw new Torn(where, 'has no revision, or is neither saved nor refused');
        return {
          revision: v.revision,
          kind: v.kind,
          savedAt: time(where, v.savedAt, 'savedAt'),
          document: documentOf(where, v.document),
        };
      }),
      runs: list(path, kept.runs, 'runs').map(run => runOf(`${folder}/runs/${step(String(run))}.json`)),
      log: (list(path, kept.log, 'log') as readonly Loose[]).map(l => {
        const read = readLogEntry(l?.entry);
        if (!read.ok) throw new Torn(path, read.fault);
        return {
          entry: read.entry,
          struckAt: timeOrNot(path, l.struckAt, 'struckAt'),
          receivedAt: time(path, l.receivedAt, 'receivedAt'),
        };
      }),
      logPhotos: photosOf(path, kept.logPhotos),
      surveyFiles: photosOf(path, kept.surveyFiles ?? []),
      kits: (list(path, kept.kits, 'kits') as readonly Loose[]).map(k => {
        if (!short(k?.buildId)) throw new Torn(path, 'has a kit without its build');
        return {
          buildId: k.buildId,
          kit: kitOf(path, k.kit),
          updatedAt: time(path, k.updatedAt, 'updatedAt'),
        };
      }),
    };
  };
  const kitOf = (path: string, v: unknown): KitState => {
    const { counted, tried } = (v ?? {}) as Loose;
    const entries = Object.entries((counted ?? {}) as object);
    if (
      !entries.every(([k, n]) => k.length <= 200 && whole(n)) ||
      !Array.isArray(tried) ||
      !tried.every(t => short(t))
    )
      throw new Torn(path, 'has a kit whose counts are no whole numbers or whose tools have no names');
    const change: KitChange = {
      set: Object.fromEntries(entries) as Record<string, number>,
      tried: Object.fromEntries(tried.map(t => [t, true])),
    };
    return changedKit(EMPTY_KIT, change);
  };
  const runOf = (path: string): ArchivedRun => {
    const r = groupAt(path);
    if (!short(r.id) || !short(r.buildId) || !whole(r.revision) || (r.service !== null && !short(r.service)))
      throw new Torn(path, 'has no id, build or revision of its run');
    return {
      id: r.id,
      revision: r.revision,
      buildId: r.buildId,
      service: r.service,
      startedAt: time(path, r.startedAt, 'startedAt'),
      endedAt: timeOrNot(path, r.endedAt, 'endedAt'),
      setAsideAt: timeOrNot(path, r.setAsideAt, 'setAsideAt'),
      document: documentOf(path, r.document),
      ticks: (list(path, r.ticks, 'ticks') as readonly Loose[]).map(t => {
        const { receivedAt, ...tick } = t ?? {};
        const read = readTick(tick);
        if (!read.ok) throw new Torn(path, read.fault);
        return { ...read.tick, receivedAt: time(path, receivedAt, 'receivedAt') };
      }),
      photos: photosOf(path, r.photos),
    };
  };

  const shelf = Object.hasOwn(files, 'shelf.json')
    ? (list('shelf.json', jsonAt('shelf.json'), 'it') as readonly Loose[]).map((s): ArchivedShelf => {
        const bound = (v: unknown): v is number | null =>
          v === null || (typeof v === 'number' && v >= 0 && v <= 1000);
        if (
          (s?.kind !== 'part' && s?.kind !== 'wrench') ||
          !short(s.name) ||
          !whole(s.count) ||
          !bound(s.low) ||
          !bound(s.high)
        )
          throw new Torn('shelf.json', 'has an entry without kind, name, count or range');
        return {
          kind: s.kind,
          name: s.name,
          count: s.count,
          low: s.low,
          high: s.high,
          updatedAt: time('shelf.json', s.updatedAt, 'updatedAt'),
        };
      })
    : undefined;
  const plans = list('manifest.json', manifest.plans, 'plans');
  if (new Set(plans).size !== plans.length) throw new Torn('manifest.json', 'names a plan twice');
  return {
    madeAt: time('manifest.json', manifest.madeAt, 'madeAt'),
    plans: plans.map(planOf),
    ...(shelf ? { shelf } : {}),
  };
}
