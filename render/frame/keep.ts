import { createHash } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { open, readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { SHEETS, type SheetName } from '@maypole/core/output/sheet';

/** A finished sheet as it is kept. */
export interface KeptSheet {
  readonly sha256: string;
  readonly bytes: number;
}

export function sha256(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** Writes a file beside, flushes it, and puts it in its place: it is there whole, or not at all. */
export async function writeWhole(file: string, bytes: Uint8Array): Promise<void> {
  mkdirSync(path.dirname(file), { recursive: true });
  const beside = `${file}.${process.pid}-${Math.random().toString(36).slice(2, 8)}.part`;
  try {
    const handle = await open(beside, 'w');
    try {
      await handle.writeFile(bytes);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(beside, file);
  } catch (error) {
    await rm(beside, { force: true });
    throw error;
  }
}

/** Sheets of frames in a folder, by the fingerprint of the frame. */
export class SheetStore {
  constructor(readonly folder: string) {}

  file(fingerprint: string, sheet: SheetName): string {
    return path.join(this.folder, fingerprint.slice(0, 2), `${fingerprint}.${sheet}.${SHEETS[sheet].ending}`);
  }

  async put(fingerprint: string, sheet: SheetName, bytes: Uint8Array): Promise<KeptSheet> {
    await writeWhole(this.file(fingerprint, sheet), bytes);
    return { sha256: sha256(bytes), bytes: bytes.length };
  }

  /** Whether a sheet is there as it was kept. */
  async intact(fingerprint: string, sheet: SheetName, kept: KeptSheet | undefined): Promise<boolean> {
    const file = this.file(fingerprint, sheet);
    if (!kept || !existsSync(file)) return false;
    return sha256(await readFile(file)) === kept.sha256;
  }

  async remove(fingerprint: string, sheet: SheetName): Promise<void> {
    await rm(this.file(fingerprint, sheet), { force: true });
  }
}
