import { readFile } from 'node:fs/promises';
import { exrFaultInSteps } from '@maypole/core/files/exr-fault';
import { FRAME_IMAGES, type FrameImageName } from '@maypole/core/output/frame-image';
import sharp from 'sharp';
import { inTurns } from './in-turns';

/** What a frame image must be, by the order of its frame. */
export interface FrameImageForm {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  readonly light: 'quick' | 'true';
}

/**
 * Decodes a frame image completely and compares it with what it must be.
 *
 * @returns what is wrong, as a sentence; undefined if it is whole and correct
 */
export async function frameImageFault(
  file: string,
  sheet: FrameImageName,
  form: FrameImageForm,
): Promise<string | undefined> {
  try {
    return FRAME_IMAGES[sheet].light
      ? await inTurns(exrFaultInSteps(await readFile(file), form.width, form.height))
      : await pngFault(file, form);
  } catch (error) {
    return `It cannot be decoded: ${error instanceof Error ? error.message.split('\n')[0] : String(error)}.`;
  }
}

async function pngFault(file: string, { width, height, light }: FrameImageForm): Promise<string | undefined> {
  // The header is checked first, so that no oversized picture is decoded.
  const head = await sharp(file, { failOn: 'warning' }).metadata();
  if (head.format !== 'png') return 'It is no PNG.';
  if (head.width !== width || head.height !== height)
    return `It is ${head.width} × ${head.height}, and ${width} × ${height} was asked for.`;
  const deep = head.depth === 'ushort';
  if (deep !== (light === 'true'))
    return `It has ${deep ? 16 : 8} bits a channel, and ${deep ? 8 : 16} were asked for.`;
  if (head.channels !== 4 && !(head.channels === 3 && !deep)) return `It has ${head.channels} channels.`;
  await sharp(file, { failOn: 'warning', limitInputPixels: width * height })
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer();
  return undefined;
}
