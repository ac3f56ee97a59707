import { open } from 'node:fs/promises';
import type { PixelSize } from '@maypole/core/output/kind';
import sharp from 'sharp';
import type { Fact } from './report';

/** Signatures of file formats. */
const SIGNATURES: Readonly<Record<string, (b: Buffer) => boolean>> = {
  png: (b) => b.readUInt32BE(0) === 0x89504e47,
  jpeg: (b) => b.readUInt16BE(0) === 0xffd8,
  'webp-pictures': (b) => b.subarray(8, 12).toString('latin1') === 'WEBP',
  'avif-pictures': (b) => b.subarray(4, 12).toString('latin1') === 'ftypavif',
  tiff: (b) => ['II*\0', 'MM\0*'].includes(b.subarray(0, 4).toString('latin1')),
  exr: (b) => b.readUInt32LE(0) === 0x01312f76,
};

async function firstBytes(file: string): Promise<Buffer> {
  const handle = await open(file);
  try {
    const { buffer } = await handle.read(Buffer.alloc(64), 0, 64, 0);
    return buffer;
  } finally {
    await handle.close();
  }
}

/** Facts about a sequence of picture files: format, and the size and depth of the first and last. */
export async function stillFacts(
  kind: string,
  files: readonly string[],
  size: PixelSize,
  values: Readonly<Record<string, unknown>>,
): Promise<Fact[]> {
  const facts: Fact[] = [];
  let other = 0;
  for (const file of files) if (!SIGNATURES[kind]?.(await firstBytes(file))) other++;
  facts.push({ title: 'Of another form', found: `${other}`, ...(other > 0 ? { wanted: '0' } : {}) });
  if (kind === 'exr' || files.length === 0) return facts;
  for (const [which, file] of [['First', files[0]] as const, ['Last', files[files.length - 1]] as const]) {
    const m = await sharp(file).metadata();
    const found = `${m.width} × ${m.height}`;
    const wanted = `${size.width} × ${size.height}`;
    facts.push({ title: `${which} picture`, found, ...(found === wanted ? {} : { wanted }) });
    if (values.depth !== undefined) {
      const deep = m.depth === 'ushort' ? '16' : '8';
      facts.push({
        title: 'Depth',
        found: `${deep} bit`,
        ...(deep === values.depth ? {} : { wanted: `${values.depth as string} bit` }),
      });
    }
    if (typeof values.clear === 'boolean') {
      const [alpha, asked] = [m.hasAlpha, values.clear].map((x) => (x ? 'yes' : 'no'));
      facts.push({ title: 'Alpha', found: alpha, ...(alpha === asked ? {} : { wanted: asked }) });
    }
  }
  return facts;
}
