import type { KeptSheet } from '@maypole/core/explore/sheet-settings';
import { sql } from 'drizzle-orm';
import {
  bigserial,
  boolean,
  check,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** One row per piece; what the shelf shows is copied from its current revision. */
export const pieces = pgTable('pieces', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  /** Number of the current revision. */
  head: integer('head').notNull(),
  frames: integer('frames'),
  fps: doublePrecision('fps'),
  /** Pixels; null if the document cannot be read, or is older than this column. */
  width: integer('width'),
  height: integer('height'),
  /** Gaps at the seam, by its motions or, once measured, by its shapes; null if the document cannot be read. */
  gaps: integer('gaps'),
  /** Why the document cannot be read; null if it can. */
  trouble: text('trouble'),
  thumbnail: bytea('thumbnail'),
  thumbnailRevision: integer('thumbnail_revision'),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
  /** Who made it; empty for what predates accounts. */
  madeBy: text('made_by').notNull().default(''),
  /** Labels on the shelf, sorted. */
  labels: text('labels').array().notNull().default([]),
});

/**
 * Every save, append-only. Documents are stored as exact text, so that what this version cannot read is returned
 * untouched: whole, or as a difference to the previous one (past/).
 */
export const revisions = pgTable(
  'revisions',
  {
    id: bigserial('id', { mode: 'number' }).primaryKey(),
    pieceId: uuid('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    basedOn: integer('based_on'),
    /** True if it was not made current: a take, or a save that came too late. */
    aside: boolean('aside').notNull().default(false),
    /** The document; null if `delta` is set. */
    source: text('source'),
    /** Difference to the document with the next lower number; see past/delta. */
    delta: text('delta'),
    /** SHA-256 fingerprints of the files that the document names. */
    files: text('files').array().notNull().default([]),
    /** The sheet of variations stored with it; see core/explore/sheet-settings. */
    sheet: jsonb('sheet').$type<KeptSheet>(),
    /** Its name; null for an ordinary save. */
    mark: text('mark'),
    /** The page that sent it, and its version number; null if no page did. See line.ts. */
    client: uuid('client'),
    count: integer('count'),
    /** Who saved it; empty if unknown. */
    madeBy: text('made_by').notNull().default(''),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (t) => [
    unique('revision_number').on(t.pieceId, t.number),
    index('revision_client').on(t.pieceId, t.client),
    check('source_or_delta', sql`(${t.source} is null) <> (${t.delta} is null)`),
  ],
);

/** Pages that have a piece open, by identifier; a silent page is considered closed. */
export const openPages = pgTable(
  'open_pages',
  {
    pieceId: uuid('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    client: uuid('client').notNull(),
    /** Its browser; shared by all pages of that browser. */
    browser: uuid('browser').notNull(),
    person: text('person').notNull(),
    name: text('name').notNull(),
    seenAt: moment('seen_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.pieceId, t.client] })],
);

/** Files that pieces name by fingerprint, converted to one format: shapes as PLY, pictures as PGM. */
export const assets = pgTable('assets', {
  /** SHA-256 of the bytes, hexadecimal. */
  fingerprint: text('fingerprint').primaryKey(),
  /** Original name of the file. */
  name: text('name').notNull(),
  bytes: bytea('bytes').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  /** Last upload: files that nothing names are kept for some days after it. */
  takenAt: moment('taken_at').notNull().defaultNow(),
  madeBy: text('made_by').notNull().default(''),
});

/** Stored finishes, light set-ups, cameras and scenes; see core/looks. */
export const looks = pgTable('looks', {
  id: uuid('id').primaryKey().defaultRandom(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  /** A small piece that contains it, as text. */
  source: text('source').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});
