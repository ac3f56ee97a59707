import { expect, it } from 'vitest';
import { halvesFirst } from './halves-first';

it('comes to every number once, the halves before the quarters', () => {
  expect(halvesFirst(8)).toEqual([0, 4, 2, 6, 1, 3, 5, 7]);
  expect(halvesFirst(1)).toEqual([0]);
  for (const n of [2, 7, 48]) expect([...halvesFirst(n)].sort((a, b) => a - b)).toEqual([...Array(n).keys()]);
});
