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

/** One row a piece; the facts the shelf shows are copied out of its head revision. */
export const pieces = pgTable('pieces', {
  id: uuid('id').primaryKey().defaultRandom(),
  name: text('name').notNull(),
  /** Number of the revision that is shown. */
  head: integer('head').notNull(),
  frames: integer('frames'),
  fps: doublePrecision('fps'),
  /** Pixels; null where the document cannot be read, or was saved before they were noted. */
  width: integer('width'),
  height: integer('height'),
  /** Gaps at the seam, as its motions say or, once they are measured, its shapes; null where the document cannot be read. */
  gaps: integer('gaps'),
  /** Why the document cannot be read; null where it can. */
  trouble: text('trouble'),
  thumbnail: bytea('thumbnail'),
  thumbnailRevision: integer('thumbnail_revision'),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
  /** Who made it; empty for what was made before there were people. */
  madeBy: text('made_by').notNull().default(''),
  /** Words by which pieces are told apart on the shelf, in the order of the alphabet. */
  labels: text('labels').array().notNull().default([]),
});

/**
 * Every save, append-only. The document is kept as text, character for character, so that what
 * this version cannot read is still given back untouched: whole, or as what makes it of the one before (past/).
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
    /** True for what is kept beside and was not made the head: a take, or a save that came too late. */
    aside: boolean('aside').notNull().default(false),
    /** The document; null where `delta` stands for it. */
    source: text('source'),
    /** What makes the document of that with the next lower number; see past/delta. */
    delta: text('delta'),
    /** SHA-256 fingerprints of the files that the document names. */
    files: text('files').array().notNull().default([]),
    /** The sheet of variations that is kept with it; see core/explore/sheet-settings. */
    sheet: jsonb('sheet').$type<KeptSheet>(),
    /** What it was called by whoever wants it kept; null for a save like any other. */
    mark: text('mark'),
    /** The page that sent it, and which of its versions of this piece it was; null for what no page sent. See line.ts. */
    client: uuid('client'),
    count: integer('count'),
    /** Who saved it; empty where that is not known. */
    madeBy: text('made_by').notNull().default(''),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (t) => [
    unique('revision_number').on(t.pieceId, t.number),
    index('revision_client').on(t.pieceId, t.client),
    check('source_or_delta', sql`(${t.source} is null) <> (${t.delta} is null)`),
  ],
);

/** Pages that have a piece open, each by the number it gave itself; one that says nothing for a while is gone. */
export const openPages = pgTable(
  'open_pages',
  {
    pieceId: uuid('piece_id')
      .notNull()
      .references(() => pieces.id, { onDelete: 'cascade' }),
    client: uuid('client').notNull(),
    /** The browser that it is in; the same for all its pages. */
    browser: uuid('browser').notNull(),
    person: text('person').notNull(),
    name: text('name').notNull(),
    seenAt: moment('seen_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.pieceId, t.client] })],
);

/** Files that pieces name by their fingerprint, brought into one form: shapes as PLY, pictures as PGM. */
export const assets = pgTable('assets', {
  /** SHA-256 of the bytes, hexadecimal. */
  fingerprint: text('fingerprint').primaryKey(),
  /** What the file was called. */
  name: text('name').notNull(),
  bytes: bytea('bytes').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  /** When it was last taken in: what nothing names is kept for some days after it. */
  takenAt: moment('taken_at').notNull().defaultNow(),
  madeBy: text('made_by').notNull().default(''),
});

/** Finishes, light set-ups, cameras and scenes that are kept by themselves; see core/looks. */
export const looks = pgTable('looks', {
  id: uuid('id').primaryKey().defaultRandom(),
  kind: text('kind').notNull(),
  name: text('name').notNull(),
  /** A small piece that holds it, as text. */
  source: text('source').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
});
