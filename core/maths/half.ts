const single = new Float32Array(1);
const bits = new Uint32Array(single.buffer);

/**
 * The 16 bits of the half float nearest to a number, to the even one of two that are as near (IEEE 754 binary16).
 * What is larger than 65,504 by more than half a step is infinite.
 */
export function halfBits(x: number): number {
  single[0] = x;
  const b = bits[0];
  const sign = (b >>> 16) & 0x8000;
  const size = b & 0x7fffffff;
  if (size > 0x7f800000) return sign | 0x7e00;
  if (size >= 0x477ff000) return sign | 0x7c00;
  if (size >= 0x38800000) return sign | ((size - 0x38000000 + 0xfff + ((size >>> 13) & 1)) >>> 13);
  // Below the smallest normal one: steps of 2⁻²⁴. What was rounded to single precision before is exact here.
  const steps = Math.abs(single[0]) * 2 ** 24;
  const whole = Math.floor(steps);
  const rest = steps - whole;
  return sign | (whole + (rest > 0.5 || (rest === 0.5 && whole % 2 === 1) ? 1 : 0));
}

/** The number that 16 bits stand for. */
export function fromHalfBits(h: number): number {
  const sign = h & 0x8000 ? -1 : 1;
  const exponent = (h >>> 10) & 31;
  const rest = h & 1023;
  if (exponent === 0) return sign * rest * 2 ** -24;
  if (exponent === 31) return rest ? NaN : sign * Infinity;
  return sign * (1 + rest / 1024) * 2 ** (exponent - 15);
}
