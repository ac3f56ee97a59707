import { expect, it } from 'vitest';
import { linkPiece } from './link';
import { newPiece, newRibbon, newStep } from './piece';

it('lists of points stay as long as they are where a value beside them is linked', () => {
  const points = Array.from({ length: 7 }, (_, i) => [i, 0, 0] as const);
  const follow = { motion: 'follow', of: 'r/a/angle', scale: 1, offset: 0, delay: 0, otherwise: 0 };
  const ribbon = newRibbon('box', 0);
  const steps = [
    ...ribbon.steps,
    newStep('twist', {}, 'a'),
    newStep('journey', { points, roll: follow as never }, 'b'),
  ];
  const linked = linkPiece({ ...newPiece('Lists'), ribbons: [{ ...ribbon, id: 'r', steps }] });
  expect(linked.ribbons[0].steps[2]).not.toBe(steps[2]);
  expect(linked.ribbons[0].steps[2].values.points).toEqual(points);
});
