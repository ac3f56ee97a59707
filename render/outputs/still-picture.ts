import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { eightBits, decodePng, withProfile } from '../files/png';
import { eachFrame, type Exporter, type ExportJob } from './exporter';

// Every picture is made once, so caching gains nothing.
sharp.cache(false);

/** A frame image in 8 bits, for the picture library. */
export async function sharpOf(file: string): Promise<Sharp> {
  const sheet = decodePng(await readFile(file));
  const { width, height } = sheet;
  return sharp(eightBits(sheet), { raw: { width, height, channels: 4 } });
}

let profile: Promise<Uint8Array> | undefined;

/** The sRGB profile that the library writes. */
function srgbProfile(): Promise<Uint8Array> {
  return (profile ??= sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } })
    .withIccProfile('srgb')
    .png()
    .toBuffer()
    .then(async (png) => (await sharp(png).metadata()).icc!));
}

/**
 * A frame image in 16 bits. Its profile is attached on input and kept: told to write one, the library would convert
 * colours and lose the last bits.
 */
export async function deepPicture(file: string): Promise<Sharp> {
  return sharp(withProfile(await readFile(file), await srgbProfile()))
    .toColourspace('rgb16')
    .keepIccProfile();
}

/** One file per frame by the picture library; without alpha unless its values ask for it. */
export function stillPictures<V>(
  how: (picture: Sharp, values: V) => Sharp,
  taken: (file: string, values: V) => Promise<Sharp> = sharpOf,
): Exporter {
  return (making: ExportJob) =>
    eachFrame(making, async (index, to) => {
      const values = making.values as V;
      const { clear } = making.values as { clear?: boolean };
      const picture = await taken(making.sheet(index), values);
      await how(clear ? picture : picture.removeAlpha(), values).toFile(to);
    });
}
