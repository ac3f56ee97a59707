import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { eightBits, readSheet } from '../files/png';
import { eachFrame, type Maker, type Making } from './maker';

// Pictures are made once each: none of them is worth keeping.
sharp.cache(false);

/** A sheet as a library for pictures takes it, said to be sRGB. */
export async function sheetPicture(file: string, deep = false): Promise<Sharp> {
  const sheet = readSheet(await readFile(file));
  const { width, height } = sheet;
  if (deep && sheet.data instanceof Uint16Array)
    return sharp(sheet.data, { raw: { width, height, channels: 4 } }).toColourspace('rgb16');
  return sharp(eightBits(sheet), { raw: { width, height, channels: 4 } });
}

/** A file a frame by a library for pictures; without alpha where its values do not ask for it. */
export function stillPictures<V>(how: (picture: Sharp, values: V) => Sharp, deep?: (values: V) => boolean): Maker {
  return (making: Making) =>
    eachFrame(making, async (index, to) => {
      const values = making.values as V;
      const { clear } = making.values as { clear?: boolean };
      const picture = await sheetPicture(making.sheet(index), deep?.(values));
      await how(clear ? picture : picture.removeAlpha(), values).toFile(to);
    });
}
