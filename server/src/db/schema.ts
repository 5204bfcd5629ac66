import { blob, index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/**
 * Current state of each plan with its rig; `body` is a plate-fold/1 document. Small changes leave it as it was at `bodyRevision` and stand in
 * the revisions after it, until the next whole one.
 */
export const documents = sqliteTable('documents', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  rigName: text('rig_name').notNull(),
  bodyKind: text('body_kind').notNull(),
  revision: integer('revision').notNull(),
  body: text('body').notNull(),
  updatedAt: integer('updated_at').notNull(),
  /** the revision that `body` is; null where it is the current one */
  bodyRevision: integer('body_revision'),
  /** put away by its owner, out of the list of plans; null where it is in it */
  archivedAt: integer('archived_at'),
  /** it came with the program, to look at */
  example: integer('example', { mode: 'boolean' }).notNull().default(false),
});

/** Every acknowledged save, and every save that was refused because it came too late. */
export const revisions = sqliteTable(
  'revisions',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    /** the revision it became, or, when refused, the one it was based on */
    revision: integer('revision').notNull(),
    kind: text('kind', { enum: ['saved', 'refused'] }).notNull(),
    /** the whole document; empty where `patch` says what changed */
    body: text('body').notNull(),
    savedAt: integer('saved_at').notNull(),
    /** what changed since the revision before, as operations of RFC 6902 */
    patch: text('patch'),
  },
  t => [index('revisions_by_document').on(t.documentId, t.kind, t.revision)],
);

/** One installation, on the plan as it stood when it began. */
export const runs = sqliteTable('runs', {
  id: text('id').primaryKey(),
  documentId: text('document_id')
    .notNull()
    .references(() => documents.id, { onDelete: 'cascade' }),
  revision: integer('revision').notNull(),
  buildId: text('build_id').notNull(),
  /** the service point it is about, or `phase:` and a phase's id; null for the whole installation */
  service: text('service'),
  body: text('body').notNull(),
  startedAt: integer('started_at').notNull(),
  endedAt: integer('ended_at'),
  /** begun by mistake: no longer offered to go on with */
  setAsideAt: integer('set_aside_at'),
});

/** What was done in a run. Rows are only ever added; the newest row of a move says how it stands. */
export const ticks = sqliteTable(
  'ticks',
  {
    /** made on the device, so that sending it twice adds it once */
    id: text('id').notNull(),
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    stepId: text('step_id').notNull(),
    jointId: text('joint_id'),
    kind: text('kind', {
      enum: ['done', 'undone', 'deviation', 'override', 'claim', 'dismissed'],
    }).notNull(),
    torqueNm: real('torque_nm'),
    note: text('note'),
    fault: text('fault'),
    /** figures that the step asked for, as JSON */
    values: text('values', { mode: 'json' }).$type<Readonly<Record<string, number>>>(),
    who: text('who'),
    wrench: text('wrench'),
    photo: text('photo'),
    /** clock of the device, ms */
    at: integer('at').notNull(),
    receivedAt: integer('received_at').notNull(),
    device: text('device').notNull(),
  },
  t => [primaryKey({ columns: [t.runId, t.id] }), index('ticks_by_run').on(t.runId, t.at)],
);

/** Small facts about the database itself, such as whether the demo was loaded. */
export const meta = sqliteTable('meta', { key: text('key').primaryKey(), value: text('value').notNull() });

/** What lies in the garage: parts by their name on the bag list, and torque wrenches with their range. */
export const shelf = sqliteTable(
  'shelf',
  {
    kind: text('kind', { enum: ['part', 'wrench'] }).notNull(),
    name: text('name').notNull(),
    count: integer('count').notNull(),
    /** N·m */
    low: real('low'),
    high: real('high'),
    updatedAt: integer('updated_at').notNull(),
  },
  t => [primaryKey({ columns: [t.kind, t.name] })],
);

/** How far the kit of a build has been gone through before its run; `body` is what was counted and tried. */
export const kits = sqliteTable(
  'kits',
  {
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    buildId: text('build_id').notNull(),
    body: text('body').notNull(),
    updatedAt: integer('updated_at').notNull(),
  },
  t => [primaryKey({ columns: [t.documentId, t.buildId] })],
);

/** Photos of what was off in a run. */
export const photos = sqliteTable(
  'photos',
  {
    id: text('id').notNull(),
    runId: text('run_id')
      .notNull()
      .references(() => runs.id, { onDelete: 'cascade' }),
    type: text('type').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
    receivedAt: integer('received_at').notNull(),
  },
  t => [primaryKey({ columns: [t.runId, t.id] })],
);

/** What happened to a plan's vehicle. Entries are struck out, never lost. */
export const logEntries = sqliteTable(
  'log_entries',
  {
    /** made on the device, so that sending it twice adds it once */
    id: text('id').notNull(),
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id, { onDelete: 'cascade' }),
    kind: text('kind').notNull(),
    at: integer('at').notNull(),
    body: text('body').notNull(),
    struckAt: integer('struck_at'),
    receivedAt: integer('received_at').notNull(),
  },
  t => [primaryKey({ columns: [t.documentId, t.id] }), index('log_by_document').on(t.documentId, t.at)],
);

/** A file that is kept beside a plan, its id made on the device. */
const ofDocument = () => ({
  id: text('id').notNull(),
  documentId: text('document_id')
    .notNull()
    .references(() => documents.id, { onDelete: 'cascade' }),
  type: text('type').notNull(),
  bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  receivedAt: integer('received_at').notNull(),
});

/** Pictures of a plan's vehicle on which points of its survey are marked, and the heights of its scan. */
export const surveyFiles = sqliteTable(
  'survey_files',
  {
    ...ofDocument(),
  },
  t => [primaryKey({ columns: [t.documentId, t.id] })],
);

/** Photos that belong to entries of a plan's log. */
export const logPhotos = sqliteTable(
  'log_photos',
  {
    ...ofDocument(),
  },
  t => [primaryKey({ columns: [t.documentId, t.id] })],
);
