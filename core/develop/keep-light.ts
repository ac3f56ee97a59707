/** Width and height in pixels of the blocks over which light is summed. */
const BLOCK = 8;
/** How far light may move, as a share of the shorter side of the picture; and in blocks at least. */
const [SHARE, LEAST] = [1 / 12, 2];
/** Bounds of the correction factor. */
const [DARKEST, BRIGHTEST] = [0.5, 2];

/**
 * Restores the energy that denoising removed: an outlier, such as a rare bright sample in glass, is filtered like its
 * neighbours, which lowers the mean of glass by 1 to 3 %. A slowly varying factor restores the mean of the whole
 * exactly, and that of each part nearly. It brings no grain back, since it is a mean over many pixels.
 *
 * @param noisy `stride` numbers per pixel, the first three of them light
 * @param clean the same without grain; changed in place
 * @returns clean
 */
export function keepLight(
  noisy: Float32Array,
  clean: Float32Array<ArrayBuffer>,
  stride: 3 | 4,
  width: number,
  height: number,
): Float32Array<ArrayBuffer> {
  const [columns, rows] = [Math.ceil(width / BLOCK), Math.ceil(height / BLOCK)];
  const reach = Math.max(LEAST, Math.round((SHARE * Math.min(width, height)) / BLOCK));
  const factors = [0, 1, 2].map((k) => {
    const [had, has] = [noisy, clean].map((from) => {
      let sums = blockSums(from, stride, k, width, height, columns, rows);
      // Two passes make the factor smooth.
      for (let pass = 0; pass < 2; pass++) sums = boxSums(sums, columns, rows, reach);
      return sums;
    });
    return had.map((x, i) => (has[i] > 0 ? Math.min(BRIGHTEST, Math.max(DARKEST, x / has[i])) : 1));
  });
  const across = Array.from({ length: width }, (_, x) => place(x, columns));
  const first = Uint16Array.from(across, (p) => p.first);
  const second = Uint16Array.from(across, (p) => p.second);
  const share = Float64Array.from(across, (p) => p.share);
  const row = new Float64Array(columns);
  const sums = factors.map((factor, k) => {
    let [had, has] = [0, 0];
    for (let y = 0; y < height; y++) {
      const down = place(y, rows);
      for (let c = 0; c < columns; c++) {
        const above = factor[down.first * columns + c];
        row[c] = above + down.share * (factor[down.second * columns + c] - above);
      }
      for (let x = 0, o = stride * y * width + k; x < width; x++, o += stride) {
        const before = row[first[x]];
        clean[o] *= before + share[x] * (row[second[x]] - before);
        had += noisy[o];
        has += clean[o];
      }
    }
    return { had, has };
  });
  const rest = sums.map(({ had, has }) => (has > 0 && had > 0 ? had / has : 1));
  for (let o = 0; o < clean.length; o += stride) {
    clean[o] *= rest[0];
    clean[o + 1] *= rest[1];
    clean[o + 2] *= rest[2];
  }
  return clean;
}

/** The block centres before and after a pixel, and its share of the way between them. */
function place(x: number, count: number): { first: number; second: number; share: number } {
  const at = Math.min(count - 1, Math.max(0, (x + 0.5) / BLOCK - 0.5));
  const first = Math.floor(at);
  return { first, second: Math.min(count - 1, first + 1), share: at - first };
}

function blockSums(
  from: Float32Array,
  stride: number,
  k: number,
  width: number,
  height: number,
  columns: number,
  rows: number,
): Float64Array {
  const out = new Float64Array(columns * rows);
  for (let y = 0; y < height; y++) {
    const row = Math.floor(y / BLOCK) * columns;
    for (let x = 0, o = stride * y * width + k; x < width; x++, o += stride) out[row + ((x / BLOCK) | 0)] += from[o];
  }
  return out;
}

/** Sums over a square of blocks, clipped to the picture: only ratios of such sums are used. */
function boxSums(values: Float64Array, columns: number, rows: number, reach: number): Float64Array {
  const along = (from: Float64Array, count: number, step: number, lines: number, next: number) => {
    const out = new Float64Array(from.length);
    for (let line = 0; line < lines; line++)
      for (let i = 0; i < count; i++) {
        let sum = 0;
        for (let j = Math.max(0, i - reach); j <= Math.min(count - 1, i + reach); j++)
          sum += from[line * next + j * step];
        out[line * next + i * step] = sum;
      }
    return out;
  };
  return along(along(values, columns, 1, rows, columns), rows, columns, columns, 1);
}
