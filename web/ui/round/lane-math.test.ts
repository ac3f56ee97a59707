import { describe, expect, it } from 'vitest';
import { mainPart, seamsBetween, toldApart } from './lane-math';

describe('lanes', () => {
  it('say whose they are where two would read alike, and which where one ribbon has two', () => {
    const lane = (title: string, place: string) => ({ title, place });
    expect(toldApart([lane('Twist angle', 'Ring'), lane('Bend angle', 'Ring')])).toEqual([undefined, undefined]);
    expect(toldApart([lane('Twist angle', 'Ring'), lane('Twist angle', 'Box')])).toEqual(['Ring', 'Box']);
    expect(toldApart([lane('Twist angle', 'Ring'), lane('Twist angle', 'Box'), lane('Twist angle', 'Ring')])).toEqual([
      'Ring 1',
      'Box',
      'Ring 2',
    ]);
  });
  it('know which seams lie in view', () => {
    expect(seamsBetween(-0.15, 1.15)).toEqual([0, 1]);
    const [a, b] = mainPart(-0.15, 1.3);
    expect([a, b]).toEqual([0, 1]);
  });
});
