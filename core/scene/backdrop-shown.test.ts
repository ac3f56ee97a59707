import { describe, expect, it } from 'vitest';
import { backdropShown } from './backdrop-shown';

const red = [1, 0, 0];
const blue = [0, 0, 1];
const gradient = { type: 'gradient', colour: '#FF0000', to: '#0000FF', round: false, angle: 0, middle: 0.5 } as const;

describe('the colour of a backdrop', () => {
  it('is its plain colour everywhere', () => {
    for (const v of [0, 0.4, 1]) expect(backdropShown({ type: 'colour', colour: '#FF0000' }, 0.3, v, 2)).toEqual(red);
  });
  it('goes from the top to the bottom, half over in the middle or where it is said to be', () => {
    expect(backdropShown(gradient, 0.2, 0, 1.5)).toEqual(red);
    expect(backdropShown(gradient, 0.2, 1, 1.5)).toEqual(blue);
    expect(backdropShown(gradient, 0.2, 0.5, 1.5)[0]).toBeCloseTo(0.5, 12);
    expect(backdropShown({ ...gradient, middle: 0.2 }, 0.9, 0.2, 1.5)[2]).toBeCloseTo(0.5, 12);
  });
  it('goes from edge to edge where it is turned, and from the middle to the corners where it is round', () => {
    const turned = { ...gradient, angle: 90 };
    expect(backdropShown(turned, 0, 0.3, 2)[0]).toBeCloseTo(1, 12);
    expect(backdropShown(turned, 1, 0.7, 2)[2]).toBeCloseTo(1, 12);
    const round = { ...gradient, round: true };
    expect(backdropShown(round, 0.5, 0.5, 2)).toEqual(red);
    expect(backdropShown(round, 0, 0, 2)[2]).toBeCloseTo(1, 12);
  });
});
