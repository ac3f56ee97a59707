import { createHash } from 'node:crypto';
import { assetWords, isKeptPicture, readAsset } from '@maypole/core/files/kept';
import { importShape } from '@maypole/core/files/import-shape';
import { writePly } from '@maypole/core/files/ply';
import { FileTrouble } from '@maypole/core/assets/trouble';
import { eq } from 'drizzle-orm';
import type { KeptAsset } from '../../contract/pieces';
import type { Database } from '../data/db';
import { AppError } from '../http/app-error';
import { assertRoomForFile } from '../upkeep/room';
import { assets } from '../data/schema';

/** Stores a file: parses it, converts it to its stored format, and keeps it under its fingerprint. */
export async function keepAsset(db: Database, name: string, bytes: Uint8Array, madeBy = ''): Promise<KeptAsset> {
  try {
    if (isKeptPicture(name)) return await store(db, name.slice(0, 200), bytes, assetWords(readAsset(bytes)), madeBy);
    const mesh = await importShape(name, bytes);
    return await store(db, name.slice(0, 200), writePly(mesh), assetWords({ type: 'shape', mesh }), madeBy);
  } catch (error) {
    if (error instanceof FileTrouble) throw new AppError(422, error.message);
    throw error;
  }
}

async function store(db: Database, name: string, bytes: Uint8Array, words: string, madeBy: string): Promise<KeptAsset> {
  await assertRoomForFile(db, madeBy, bytes.length);
  const fingerprint = createHash('sha256').update(bytes).digest('hex');
  // The same bytes under another name are renamed: that is what was chosen last.
  await db
    .insert(assets)
    .values({ fingerprint, name, bytes: Buffer.from(bytes), madeBy })
    .onConflictDoUpdate({ target: assets.fingerprint, set: { name, takenAt: new Date() } });
  return { fingerprint, name, words };
}

export async function loadAsset(db: Database, fingerprint: string): Promise<{ name: string; bytes: Buffer }> {
  const [row] = await db
    .select({ name: assets.name, bytes: assets.bytes })
    .from(assets)
    .where(eq(assets.fingerprint, fingerprint));
  if (!row) throw new AppError(404, 'This file is not kept here. Choose it again.');
  return row;
}

/** Fingerprints that a document names; any 64 hexadecimal digits may be one. */
function namedIn(source: string): string[] {
  return [...new Set([...source.matchAll(/"([0-9a-f]{64})"/g)].map((m) => m[1]))];
}

/** The stored files that a document names, to be exported with it; one at a time in memory. */
export async function* assetsWith(
  db: Database,
  source: string,
): AsyncGenerator<{ fingerprint: string; name: string; bytes: Buffer }> {
  for (const fingerprint of namedIn(source)) {
    const [row] = await db
      .select({ fingerprint: assets.fingerprint, name: assets.name, bytes: assets.bytes })
      .from(assets)
      .where(eq(assets.fingerprint, fingerprint));
    if (row) yield row;
  }
}

/** Stores the files that came with a document. One whose bytes do not match its fingerprint is refused. */
export async function keepAssets(
  db: Database,
  list: Record<string, { name: string; data: string }>,
  madeBy = '',
): Promise<void> {
  for (const [fingerprint, { name, data }] of Object.entries(list)) {
    const bytes = Buffer.from(data, 'base64');
    try {
      readAsset(bytes);
    } catch (error) {
      if (error instanceof FileTrouble)
        throw new AppError(422, `The file “${name}” inside this piece cannot be read: ${error.message}`);
      throw error;
    }
    const kept = await store(db, name, bytes, '', madeBy);
    if (kept.fingerprint !== fingerprint)
      throw new AppError(
        422,
        `The file “${name}” inside this piece is damaged: its bytes are not those it was saved with. Export the piece again.`,
      );
  }
}
