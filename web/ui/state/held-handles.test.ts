import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { lights } from '@maypole/core/scene/index';
import { describe, expect, it } from 'vitest';
import { handlesAtWork, heldHandles } from './held-handles';

const held = (after: ReturnType<typeof newStep>[], step = newStep('push', { from: [1, 0, 0] }), frame = 0) => {
  const ribbon = { ...newRibbon('box', 0), steps: [newStep('box'), step, ...after] };
  const piece: Piece = { ...newPiece(), loop: { frames: 40, fps: 25 }, ribbons: [ribbon] };
  return heldHandles(piece, ribbon.id, step.id, frame);
};

describe('the handles of something of the scene', () => {
  const lamp = newItem(lights.get('spot'), { place: [1, 2, 3], aim: [0, 0, 1] });
  const piece: Piece = { ...newPiece(), scene: { ...newPiece().scene, lights: [lamp] } };
  it('are declared with its values, as those of steps are: a spot has its place and what it points at', () => {
    const at = handlesAtWork(piece, null, lamp.id, 0)!;
    expect(at.owner).toEqual({ type: 'scene', item: lamp.id });
    expect(at.handles.map((h) => [h.param, h.shape, h.at])).toEqual([
      ['place', 'place', [1, 2, 3]],
      ['aim', 'place', [0, 0, 1]],
    ]);
    expect(at.back(at.turn([1, 2, 3]))).toEqual([1, 2, 3]);
  });
  it('are not there for what is off, unknown, or has none', () => {
    const off = { ...piece, scene: { ...piece.scene, lights: [{ ...lamp, on: false }] } };
    expect(handlesAtWork(off, null, lamp.id, 0)).toBeNull();
    expect(handlesAtWork(piece, null, 'gone', 0)).toBeNull();
    expect(handlesAtWork(piece, null, piece.scene.backdrop[0].id, 0)).toBeNull();
    expect(handlesAtWork(piece, null, null, 0)).toBeNull();
  });
});

describe('the handles of the step at work', () => {
  it('stand where the placing steps that follow bring them', () => {
    expect(held([])!.place([1, 0, 0])).toEqual([1, 0, 0]);
    const moved = held([newStep('place', { shift: [0, 2, 0], turn: [0, 90, 0] })])!;
    // A quarter turn about y takes x to −z.
    moved.place([1, 0, 0]).forEach((x, k) => expect(x).toBeCloseTo([0, 2, -1][k], 6));
    const spun = held([newStep('spin', { turns: 1 })], undefined, 10)!;
    expect(Math.abs(spun.place([1, 0, 0])[0])).toBeLessThan(1e-6);
  });
  it('a way in the picture is brought back into the space of the step', () => {
    const h = held([newStep('place', { shift: [1, 2, 3], turn: [20, 50, -30] })])!;
    const way = h.back(h.turn([0.3, -0.4, 0.5]));
    way.forEach((x, k) => expect(x).toBeCloseTo([0.3, -0.4, 0.5][k], 6));
  });
  it('follow values that move, and are not there for steps without any', () => {
    const from = [{ motion: 'wave', shape: 'saw', low: 0, high: 4, turns: 1, phase: 0, rest: 0 }, 0, 0] as never;
    const at = (frame: number) => held([], newStep('push', { from }), frame)!.handles[0].at[0];
    expect(at(10)).not.toBe(at(20));
    expect(held([], newStep('shell'))).toBeNull();
    expect(held([], newStep('displace'))).toBeNull();
  });
  it('a cage stands round the form as it is before the cage', () => {
    const cage = held(
      [],
      newStep('cage', { cells: '2', moves: Array.from({ length: 8 }, () => [0.5, 0, 0]) as never }),
    )!;
    expect(cage.handles).toHaveLength(8);
    expect(Math.min(...cage.handles.map((h) => h.from![0]))).toBeCloseTo(-0.7, 5);
    expect(Math.min(...cage.handles.map((h) => h.at[0]))).toBeCloseTo(-0.2, 5);
  });
});
