import { describe, expect, it } from 'vitest';
import { coloursIn } from './colours';
import { newPiece, newRibbon, type RibbonDoc } from './piece';

const coloured = (colour: unknown, i: number): RibbonDoc => {
  const ribbon = newRibbon('torus', i);
  const [finish] = ribbon.finishes;
  const parts = finish.parts.map((p) =>
    p.kind === 'base' ? { ...p, values: { ...p.values, colour: colour as string } } : p,
  );
  return { ...ribbon, finishes: [{ ...finish, parts }] };
};

describe('colours of a piece', () => {
  it('are each there once, the most frequent first; what moves is left out', () => {
    const cycle = { motion: 'cycle', from: '#123456', turns: 1, space: 'oklch' };
    const found = coloursIn({ ...newPiece('Many'), ribbons: ['#00FF00', '#ff0000', '#00ff00', cycle].map(coloured) });
    expect(found[0]).toBe('#00ff00');
    expect(found).toContain('#ff0000');
    expect(new Set(found).size).toBe(found.length);
    expect(found).not.toContain('#123456');
  });
});
