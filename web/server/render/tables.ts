import type { RenderState, WorkState } from '../../contract/renders';
import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { PixelSize } from '@maypole/core/output/kind';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { Item } from '@maypole/core/piece/piece';
import type { FileReport } from '@maypole/render/check/report';
import type { MadeFile } from '@maypole/render/deliver';
import type { KeptFrameImage } from '@maypole/render/frame/keep';
import {
  bigint,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import { pieces } from '../data/schema';

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** A revision of a piece that is made into files. */
export const renders = pgTable(
  'renders',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    pieceId: uuid('piece_id').references(() => pieces.id, { onDelete: 'set null' }),
    name: text('name').notNull(),
    revision: integer('revision').notNull(),
    /** The document, as it was then. */
    source: text('source').notNull(),
    frames: integer('frames').array().notNull(),
    loopFrames: integer('loop_frames').notNull(),
    fps: doublePrecision('fps').notNull(),
    frameOrder: jsonb('frame_order').$type<FrameOrder>().notNull(),
    sheets: jsonb('sheets').$type<readonly FrameImageName[]>().notNull(),
    pattern: text('pattern').notNull(),
    light: text('light').$type<'quick' | 'true'>().notNull(),
    /** What made its frames: others may not work on it. */
    maker: text('maker').notNull(),
    state: text('state').$type<RenderState>().notNull().default('frames'),
    paused: boolean('paused').notNull().default(false),
    /** A few frames, by which it is told what all would take. */
    estimate: boolean('estimate').notNull().default(false),
    priority: integer('priority').notNull().default(0),
    /** Its place among those of its priority. */
    place: doublePrecision('place').notNull(),
    message: text('message'),
    madeBy: text('made_by').notNull().default(''),
    createdAt: moment('created_at').notNull().defaultNow(),
    finishedAt: moment('finished_at'),
  },
  (t) => [index('renders_open').on(t.state, t.priority, t.place)],
);

/** One frame of a render. */
export const renderParts = pgTable(
  'render_parts',
  {
    renderId: uuid('render_id')
      .notNull()
      .references(() => renders.id, { onDelete: 'cascade' }),
    /** Place among the frames of the render. */
    index: integer('index').notNull(),
    /** Place in the order in which frames are made. */
    rank: integer('rank').notNull(),
    fingerprint: text('fingerprint').notNull(),
    state: text('state').$type<WorkState>().notNull().default('waiting'),
    lease: uuid('lease'),
    leaseUntil: moment('lease_until'),
    worker: text('worker'),
    tries: integer('tries').notNull().default(0),
    seconds: doublePrecision('seconds'),
    /** Of its sheets. */
    bytes: bigint('bytes', { mode: 'number' }).notNull().default(0),
    /** Megabytes that the worker took at most. */
    memory: integer('memory'),
    /** It was there already, made for another render. */
    takenOver: boolean('taken_over').notNull().default(false),
    message: text('message'),
    doneAt: moment('done_at'),
  },
  (t) => [
    primaryKey({ columns: [t.renderId, t.index] }),
    index('render_parts_next').on(t.renderId, t.state, t.rank),
    index('render_parts_fingerprint').on(t.fingerprint),
    index('render_parts_lease').on(t.state, t.leaseUntil),
  ],
);

/** Where the making of a frame for a second time stands: in the end it is the same, or another. */
export type CheckState = 'waiting' | 'leased' | 'same' | 'other' | 'failed';

/** A frame that another machine makes once more, to see whether it comes out the same in every byte. */
export const renderChecks = pgTable(
  'render_checks',
  {
    renderId: uuid('render_id')
      .notNull()
      .references(() => renders.id, { onDelete: 'cascade' }),
    index: integer('index').notNull(),
    state: text('state').$type<CheckState>().notNull().default('waiting'),
    lease: uuid('lease'),
    leaseUntil: moment('lease_until'),
    worker: text('worker'),
    tries: integer('tries').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.renderId, t.index] }), index('render_checks_next').on(t.state)],
);

/** Pictures of frames that are kept as files, by their fingerprint. */
export const renderSheets = pgTable('render_sheets', {
  fingerprint: text('fingerprint').primaryKey(),
  sheets: jsonb('sheets').$type<Partial<Record<FrameImageName, KeptFrameImage>>>().notNull(),
  madeAt: moment('made_at').notNull().defaultNow(),
});

/** An output of a render. */
export const renderFiles = pgTable(
  'render_files',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    renderId: uuid('render_id')
      .notNull()
      .references(() => renders.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    item: jsonb('item').$type<Item>().notNull(),
    base: text('base').notNull(),
    size: jsonb('size').$type<PixelSize>().notNull(),
    state: text('state').$type<WorkState>().notNull().default('waiting'),
    lease: uuid('lease'),
    leaseUntil: moment('lease_until'),
    tries: integer('tries').notNull().default(0),
    share: doublePrecision('share').notNull().default(0),
    files: jsonb('files').$type<readonly MadeFile[]>(),
    bytes: bigint('bytes', { mode: 'number' }),
    report: jsonb('report').$type<FileReport>(),
    message: text('message'),
  },
  (t) => [index('render_files_of').on(t.renderId, t.position)],
);

/** Whoever works, or did lately. */
export const renderWorkers = pgTable('render_workers', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  light: text('light').$type<'quick' | 'true'>().notNull(),
  threads: integer('threads').notNull(),
  maker: text('maker').notNull(),
  /** Who let it in: a key, or this machine. */
  by: text('by').notNull(),
  seenAt: moment('seen_at').notNull().defaultNow(),
});
