/**
 * A picture of light: what comes from every direction, linear sRGB, 3 numbers a pixel, rows from the top; twice
 * as wide as high, the middle towards +z.
 */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Width up to which a picture of light is kept; it lights no better by being finer. */
export const MOST_LIGHT_WIDTH = 2048;

/** Pixels of a file up to which it is taken in at all. */
export const MOST_LIGHT_PIXELS = 8192 * 4096;

/** Brightest light that is kept: what half floats can hold. */
export const BRIGHTEST = 65_504;

/**
 * Brings pixels of any size into a picture of light: without values that are no light, and no larger
 * than is of use, each pixel the average of those it stands for.
 *
 * @param channels numbers a pixel; what comes after the third is left out
 * @returns the picture, and in words what was not as it should be; empty where nothing was
 */
export function tidyLight(
  width: number,
  height: number,
  values: ArrayLike<number>,
  channels: 3 | 4,
): { readonly light: LightPicture; readonly mended: string } {
  const to = Math.min(width, MOST_LIGHT_WIDTH);
  const rows = Math.max(1, Math.round((height * to) / width));
  const out = new Float32Array(3 * to * rows);
  const faults = { broken: 0, negative: 0, bright: 0 };
  const clean = (x: number): number => {
    if (Number.isNaN(x)) faults.broken++;
    else if (x < 0) faults.negative++;
    else if (x > BRIGHTEST) {
      faults.bright++;
      return BRIGHTEST;
    } else return x;
    return 0;
  };
  for (let y = 0; y < rows; y++) {
    const [top, bottom] = [Math.floor((y * height) / rows), Math.max(1, Math.floor(((y + 1) * height) / rows))];
    for (let x = 0; x < to; x++) {
      const [left, right] = [Math.floor((x * width) / to), Math.floor(((x + 1) * width) / to)];
      const share = 1 / ((bottom - top) * (right - left));
      for (let j = top; j < bottom; j++)
        for (let i = left; i < right; i++)
          for (let k = 0; k < 3; k++)
            out[3 * (y * to + x) + k] += share * clean(values[channels * (j * width + i) + k]);
    }
  }
  return { light: { width: to, height: rows, values: out }, mended: inWords(faults, 3 * width * height) };
}

function inWords(faults: { broken: number; negative: number; bright: number }, of: number): string {
  const said = [
    faults.broken > 0 && `${faults.broken} values that are no numbers were made 0`,
    faults.negative > 0 && `${faults.negative} below 0 were made 0`,
    faults.bright > 0 && `${faults.bright} beyond ${BRIGHTEST} were made ${BRIGHTEST}`,
  ].filter(Boolean);
  return said.length > 0 ? `Of its ${of} values ${said.join(', ')}` : '';
}
