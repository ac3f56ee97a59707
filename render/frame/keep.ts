import { createHash } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync } from 'node:fs';
import { copyFile, open, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { FRAME_IMAGES, type FrameImageName } from '@maypole/core/output/frame-image';

/** A finished frame image as it is stored. */
export interface KeptFrameImage {
  readonly sha256: string;
  readonly bytes: number;
  /** SHA-256 of its picture, whatever packed it; frames that were made twice are compared by it. */
  readonly content?: string;
}

export function sha256(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** Size and SHA-256 of a file, read in chunks so that other work gets its turn. */
async function measured(file: string): Promise<KeptFrameImage> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of createReadStream(file, { highWaterMark: 1 << 20 })) {
    hash.update(chunk as Buffer);
    bytes += (chunk as Buffer).length;
  }
  return { sha256: hash.digest('hex'), bytes };
}

/** A name beside a file that nobody else uses. */
const besides = (file: string) => `${file}.${process.pid}-${Math.random().toString(36).slice(2, 8)}.part`;

/** Writes a temporary file, flushes it and renames it: the file is there whole, or not at all. */
export async function writeWhole(file: string, bytes: Uint8Array): Promise<void> {
  mkdirSync(path.dirname(file), { recursive: true });
  const beside = besides(file);
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

/** Frame images in a folder, by the key of the frame. */
export class FrameImageStore {
  constructor(readonly folder: string) {}

  file(fingerprint: string, sheet: FrameImageName): string {
    return path.join(this.folder, fingerprint.slice(0, 2), `${fingerprint}.${sheet}.${FRAME_IMAGES[sheet].ending}`);
  }

  async put(fingerprint: string, sheet: FrameImageName, bytes: Uint8Array): Promise<KeptFrameImage> {
    await writeWhole(this.file(fingerprint, sheet), bytes);
    return { sha256: sha256(bytes), bytes: bytes.length };
  }

  /** The same from a file, which is never held in memory as a whole. */
  async take(fingerprint: string, sheet: FrameImageName, from: string): Promise<KeptFrameImage> {
    const to = this.file(fingerprint, sheet);
    mkdirSync(path.dirname(to), { recursive: true });
    const beside = besides(to);
    try {
      await copyFile(from, beside);
      const handle = await open(beside, 'r+');
      await handle.sync().finally(() => handle.close());
      const kept = await measured(beside);
      await rename(beside, to);
      return kept;
    } catch (error) {
      await rm(beside, { force: true });
      throw error;
    }
  }

  /** Whether a frame image is there as it was stored. */
  async intact(fingerprint: string, sheet: FrameImageName, kept: KeptFrameImage | undefined): Promise<boolean> {
    const file = this.file(fingerprint, sheet);
    if (!kept || !existsSync(file)) return false;
    return (await measured(file)).sha256 === kept.sha256;
  }

  /**
   * All files that are ours by name, folder by folder: frame images, and unfinished ones, which have no `sheet`. Others
   * are not listed.
   */
  async *listed(): AsyncGenerator<
    readonly {
      readonly file: string;
      readonly fingerprint: string;
      readonly sheet?: FrameImageName;
      readonly modified: number;
    }[]
  > {
    const folders = await readdir(this.folder, { withFileTypes: true }).catch(() => []);
    for (const folder of folders) {
      if (!folder.isDirectory() || !/^[0-9a-f]{2}$/.test(folder.name)) continue;
      const within = path.join(this.folder, folder.name);
      const found = [];
      for (const name of await readdir(within)) {
        const ours = /^([0-9a-f]{8,128})\.([a-z-]+)\.(png|exr)(\.[\w-]+\.part)?$/.exec(name);
        if (!ours || !ours[1].startsWith(folder.name) || !Object.hasOwn(FRAME_IMAGES, ours[2])) continue;
        const file = path.join(within, name);
        const modified = await stat(file)
          .then((s) => s.mtimeMs)
          .catch(() => Date.now());
        found.push({ file, fingerprint: ours[1], modified, ...(ours[4] ? {} : { sheet: ours[2] as FrameImageName }) });
      }
      yield found;
    }
  }

  async remove(fingerprint: string, sheet: FrameImageName): Promise<void> {
    await rm(this.file(fingerprint, sheet), { force: true });
  }
}
