import { describe, expect, it } from 'vitest';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { defaultsOf } from '../declare/params';
import { finishParts } from '../finish/parts/index';
import { newItem, newPiece, newRibbon, newStep, type Piece, type StepDoc } from '../piece/piece';
import { boundsOf } from '../shape/measure';
import { coarser } from './coarser';

const fine = { ringSegments: 224, pipeSegments: 112 };
const piece = (steps: StepDoc[], more: Partial<Piece> = {}): Piece => ({
  ...newPiece('Fine'),
  ribbons: [{ ...newRibbon('torus', 0), steps }],
  ...more,
});
const meshOf = (p: Piece) => evaluateRibbon(p.ribbons[0], p.loop, 3, 'draft', new MeshCache()).mesh;

describe('a piece for very small pictures', () => {
  it('has about 8,000 faces in the same proportions where it is bent point by point, and the same size', () => {
    const whole = piece([
      newStep('torus', fine),
      newStep('displace', { height: 0.2 }),
      newStep('twist', { angle: 60 }),
    ]);
    const few = coarser(whole);
    const [a, b] = [meshOf(whole), meshOf(few)];
    expect(b.connectivity.vertexCount).toBeGreaterThan(7500);
    expect(b.connectivity.vertexCount).toBeLessThan(8500);
    const { ringSegments, pipeSegments } = few.ribbons[0].steps[0].values as typeof fine;
    expect(ringSegments / pipeSegments).toBeCloseTo(2, 1);
    const [was, is] = [boundsOf(a.positions)!, boundsOf(b.positions)!];
    for (let k = 0; k < 3; k++) expect(is.max[k]).toBeCloseTo(was.max[k], 1);
  });
  it('stays as it is where faces are worked on, shown, few, or stood on by another ribbon', () => {
    const same = (p: Piece) => expect(coarser(p).ribbons[0]).toBe(p.ribbons[0]);
    same(piece([newStep('torus', fine), newStep('shell')]));
    same(piece([newStep('torus', fine), newStep('jitter')]));
    same(piece([newStep('torus', { ringSegments: 80, pipeSegments: 40 })]));
    same(piece([newStep('torus', { ringSegments: 2000, pipeSegments: 20 })]));
    const wired = piece([newStep('torus', fine)]);
    const [finish] = wired.ribbons[0].finishes;
    const wires = finishParts.get('wires');
    const part = { ...newItem(wires), values: defaultsOf(wires.params) };
    same({ ...wired, ribbons: [{ ...wired.ribbons[0], finishes: [{ ...finish, parts: [...finish.parts, part] }] }] });
    const stood = piece([newStep('torus', fine)]);
    const on = {
      ...newRibbon('box', 1),
      steps: [newStep('box'), newStep('repeat-points', { other: stood.ribbons[0].id })],
    };
    same({ ...stood, ribbons: [...stood.ribbons, on] });
  });
});
