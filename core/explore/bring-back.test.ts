import { describe, expect, it } from 'vitest';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { differences } from './differences';
import { withRibbonOf, withValueOf } from './bring-back';

const piece = (steps: readonly ReturnType<typeof newStep>[]): Piece => {
  const [a, b] = [newRibbon('box', 0, 'One'), newRibbon('torus', 1, 'Two')];
  return {
    ...newPiece('P'),
    ribbons: [
      { ...a, id: 'one', steps },
      { ...b, id: 'two' },
    ],
  };
};
const old = piece([newStep('box', {}, 'a'), newStep('twist', { angle: 40, axis: 'x' }, 'b')]);
const [one, two] = old.ribbons;
const now: Piece = {
  ...old,
  ribbons: [
    { ...one, steps: [one.steps[0], { ...one.steps[1], values: { ...one.steps[1].values, angle: 90, axis: 'z' } }] },
    two,
  ],
};

describe('bringing back', () => {
  it('of one value leaves all others as they are', () => {
    const back = withValueOf(now, old, 'b', 'angle');
    expect(back.ribbons[0].steps[1].values).toEqual({ ...now.ribbons[0].steps[1].values, angle: 40 });
    expect(back.ribbons[1]).toBe(two);
    expect(differences(old, now).map((d) => d.param)).toEqual(['angle', 'axis']);
    expect(differences(old, back).map((d) => d.param)).toEqual(['axis']);
  });
  it('of what is not there any more changes nothing', () => {
    expect(withValueOf(now, old, 'nothing', 'angle')).toBe(now);
    const bent = piece([newStep('box', {}, 'a'), newStep('bend', {}, 'b')]);
    expect(withValueOf(bent, old, 'b', 'angle').ribbons[0].steps).toEqual(bent.ribbons[0].steps);
  });
  it('of a ribbon puts it in its place, or at the end where it is gone', () => {
    expect(withRibbonOf(now, old, 'one').ribbons).toEqual(old.ribbons);
    expect(withRibbonOf({ ...now, ribbons: [two] }, old, 'one').ribbons.map((r) => r.id)).toEqual(['two', 'one']);
    expect(withRibbonOf(now, old, 'three')).toBe(now);
  });
});
