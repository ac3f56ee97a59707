import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import { apart, exrBlocks, exrFile, smaller } from '@maypole/core/files/exr';

const packed = promisify(deflate);
/** Blocks that are packed at once: the threads of the process take one each. */
const TOGETHER = 8;

/** A file, and what it says whatever packed it. */
export interface WrittenExr {
  readonly bytes: Uint8Array;
  /** SHA-256 of its header and of its rows before they were packed: the same wherever the picture is the same. */
  readonly content: string;
}

/**
 * A picture of light as an OpenEXR file, its blocks packed by zlib in threads. zlib packs otherwise on other
 * processors, so that files of one picture may differ, and pictures are compared by their content.
 */
export async function packedExr(...picture: Parameters<typeof exrBlocks>): Promise<WrittenExr> {
  const [values, width, height, layers, form] = picture;
  const blocks = exrBlocks(values, width, height, layers, { ...form, packed: true });
  const content = createHash('sha256').update(blocks.header);
  const done: Promise<Uint8Array>[] = [];
  for (let i = 0; i < blocks.count; i++) {
    if (i >= TOGETHER) await done[i - TOGETHER];
    const raw = blocks.raw(i);
    content.update(raw);
    done.push(packed(apart(raw), { level: 4 }).then((small) => smaller(raw, small)));
    // Waited for below; one that fails meanwhile is no fault of nobody.
    done[i].catch(() => undefined);
  }
  return { bytes: exrFile(blocks, await Promise.all(done)), content: content.digest('hex') };
}
