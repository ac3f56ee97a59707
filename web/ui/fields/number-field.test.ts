import { describe, expect, it } from 'vitest';
import { formatNumber } from './number-field';

describe('numbers in fields', () => {
  it.each([
    [1, 1, '1'],
    [11.25, 1, '11.25'],
    [1 / 3, 1, '0.333'],
    [0.5, 0.01, '0.50'],
    [0.125, 0.01, '0.125'],
    [-0.0000001, 0.01, '0.00'],
    [7, 0.1, '7.0'],
    [23.976, 1, '23.976'],
  ])('%d in steps of %d is written %s', (value, step, text) => expect(formatNumber(value, step)).toBe(text));
});
