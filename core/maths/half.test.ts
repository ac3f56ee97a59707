import { DataUtils } from 'three';
import { describe, expect, it } from 'vitest';
import { fromHalfBits, halfBits } from './half';

describe('half floats', () => {
  it('are those of the table of IEEE 754-2019 for binary16 (values from memory)', () => {
    expect([0, -0, 1, -2, 65_504, 2 ** -14, 2 ** -24, Infinity, -Infinity].map(halfBits)).toEqual([
      0x0000, 0x8000, 0x3c00, 0xc000, 0x7bff, 0x0400, 0x0001, 0x7c00, 0xfc00,
    ]);
    expect(halfBits(1 / 3)).toBe(0x3555);
    expect(fromHalfBits(halfBits(NaN))).toBeNaN();
  });
  it('go there and back for all of them', () => {
    for (let h = 0; h < 0x10000; h++) if (!Number.isNaN(fromHalfBits(h))) expect(halfBits(fromHalfBits(h))).toBe(h);
  });
  it('are the nearest, to the even one where two are as near, and infinite beyond the largest', () => {
    expect(halfBits(1 + 2 ** -11)).toBe(0x3c00);
    expect(halfBits(1 + 3 * 2 ** -11)).toBe(0x3c02);
    expect(halfBits(2 ** -25)).toBe(0);
    expect(halfBits(1.5 * 2 ** -24)).toBe(2);
    expect([65_519, 65_520].map(halfBits)).toEqual([0x7bff, 0x7c00]);
    for (let h = 0; h < 0x7bff; h++) {
      const [a, b] = [fromHalfBits(h), fromHalfBits(h + 1)];
      expect(halfBits(a + 0.4 * (b - a))).toBe(h);
      expect(halfBits(a + 0.6 * (b - a))).toBe(h + 1);
    }
  });
  it('agree with another library where it does not cut off', () => {
    for (let i = 1; i < 2000; i++) {
      const x = fromHalfBits((i * 31) % 0x7c00);
      expect(DataUtils.fromHalfFloat(halfBits(x))).toBe(x);
    }
  });
});
