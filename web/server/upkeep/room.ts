import type { RoomUsed } from '../../contract/room';
import { count, eq, sql } from 'drizzle-orm';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { assets, pieces } from '../data/schema';

type Reader = Pick<Database, 'select' | 'execute'>;

const setting = (name: string, otherwise: number): number => {
  const value = Number(process.env[name]);
  return Number.isFinite(value) && value > 0 ? value : otherwise;
};

/** How much may be kept; each can be set otherwise by the environment of the start command. */
function quotas() {
  return {
    pieces: setting('MAYPOLE_MOST_PIECES', 20_000),
    piecesOfOne: setting('MAYPOLE_MOST_PIECES_OF_ONE', 5000),
    gigabytes: setting('MAYPOLE_MOST_GIGABYTES', 100),
    fileGigabytesOfOne: setting('MAYPOLE_MOST_FILE_GIGABYTES_OF_ONE', 20),
  };
}

const GB = 1e9;

async function databaseBytes(db: Reader): Promise<number> {
  const { rows } = await db.execute<{ bytes: string }>(sql`select pg_database_size(current_database()) as bytes`);
  return Number(rows[0].bytes);
}

/** The size is asked for once in a while: the server has to look at each of its files for it. */
const LOOK_EVERY = 20_000;
let lastLook = { at: -Infinity, bytes: 0 };

async function recentBytes(db: Reader): Promise<number> {
  if (performance.now() - lastLook.at > LOOK_EVERY)
    lastLook = { at: performance.now(), bytes: await databaseBytes(db) };
  return lastLook.bytes;
}

async function assertTotal(db: Reader): Promise<void> {
  const { gigabytes } = quotas();
  if ((await recentBytes(db)) > gigabytes * GB)
    throw new AppError(
      507,
      `Everything kept here takes more than ${gigabytes} GB, the most it may. Empty the bin of what is not ` +
        'needed, or set MAYPOLE_MOST_GIGABYTES higher and start again.',
    );
}

/** @throws AppError 507 where one more piece is more than may be kept */
export async function assertRoomForPiece(db: Reader, by: string): Promise<void> {
  const most = quotas();
  await assertTotal(db);
  const [{ all, own }] = await db
    .select({ all: count(), own: sql<number>`count(*) filter (where ${eq(pieces.madeBy, by)})`.mapWith(Number) })
    .from(pieces);
  if (all >= most.pieces)
    throw new AppError(
      507,
      `There are ${all} pieces, bin and all, the most that are kept. Set MAYPOLE_MOST_PIECES higher and start again.`,
    );
  if (by && by !== 'local' && own >= most.piecesOfOne)
    throw new AppError(
      507,
      `You have made ${own} pieces, bin and all, the most for one. Ask the owner to set MAYPOLE_MOST_PIECES_OF_ONE higher.`,
    );
}

/** @throws AppError 507 where so many more bytes of files are more than may be kept */
export async function assertRoomForFile(db: Reader, by: string, bytes: number): Promise<void> {
  await assertTotal(db);
  if (!by || by === 'local') return;
  const most = quotas().fileGigabytesOfOne;
  const [{ own }] = await db
    .select({ own: sql<number>`coalesce(sum(length(${assets.bytes})), 0)`.mapWith(Number) })
    .from(assets)
    .where(eq(assets.madeBy, by));
  if (own + bytes > most * GB)
    throw new AppError(
      507,
      `Your files take ${(own / GB).toFixed(1)} GB, and ${most} GB is the most for one. Ask the owner to set ` +
        'MAYPOLE_MOST_FILE_GIGABYTES_OF_ONE higher.',
    );
}

export async function roomUsed(db: Reader): Promise<RoomUsed> {
  const most = quotas();
  const bytes = await databaseBytes(db);
  const { rows } = await db.execute<Record<'pieces' | 'binned' | 'revisions' | 'files' | 'file_bytes', string>>(sql`
    select (select count(*) from pieces) as pieces,
           (select count(*) from pieces where deleted_at is not null) as binned,
           (select count(*) from revisions) as revisions,
           (select count(*) from assets) as files,
           (select coalesce(sum(length(bytes)), 0) from assets) as file_bytes`);
  const [n] = rows;
  return {
    bytes,
    mostBytes: most.gigabytes * GB,
    pieces: Number(n.pieces),
    mostPieces: most.pieces,
    binned: Number(n.binned),
    revisions: Number(n.revisions),
    files: Number(n.files),
    fileBytes: Number(n.file_bytes),
  };
}
