/**
 * An environment map: equirectangular radiance in linear sRGB, 3 numbers per pixel, rows from the top, twice as wide as
 * high, its centre towards +z.
 */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** Environment maps are kept up to this width in pixels; finer ones light no better. */
export const MOST_LIGHT_WIDTH = 2048;

/** Files with more pixels than this are refused. */
export const MOST_LIGHT_PIXELS = 8192 * 4096;

/** Largest radiance that is kept: the largest half float. */
export const BRIGHTEST = 65_504;

/**
 * Makes an environment map of pixels of any size: drops negative and non-finite values, and averages down to the width
 * that is kept.
 *
 * @param channels numbers per pixel; those after the third are ignored
 * @returns the map, and a sentence about what was corrected; empty if nothing was
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
