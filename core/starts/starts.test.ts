import { describe, expect, it } from 'vitest';
import { isShown } from '../declare/shown';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { readPiece, writePiece } from '../piece/read';
import { proveSeam } from '../seam/proof';
import { stepKind } from '../steps/index';
import { starts } from './index';

describe.each(starts.map((s) => [s.title, s] as const))('%s', (_, start) => {
  const piece = start.make();

  it('is a document like any other, and closes', () => {
    const read = readPiece(writePiece(piece));
    expect(read).toMatchObject({ ok: true });
    expect(proveSeam(piece).findings).toEqual([]);
  });

  it('is small, and something in it moves', () => {
    let vertices = 0;
    const moved = piece.ribbons.map((r) => {
      const [a, b] = [0, 17].map((f) => evaluateRibbon(r, piece.loop, f, 'final', new MeshCache()));
      vertices += a.mesh.positions.length / 3;
      return (
        a.key !== b.key &&
        JSON.stringify([a.mesh.positions, a.mesh.copies]) !== JSON.stringify([b.mesh.positions, b.mesh.copies])
      );
    });
    expect(moved).toContain(true);
    expect(vertices).toBeLessThan(120_000);
  });

  it('names values to turn first that are there and of use', () => {
    expect(start.first.length).toBeGreaterThanOrEqual(2);
    for (const { step, param } of start.first) {
      const found = piece.ribbons.flatMap((r) => r.steps).find((s) => s.kind === step);
      expect(found, step).toBeDefined();
      const { params } = stepKind(step);
      expect(Object.keys(params)).toContain(param);
      expect(isShown(params, found!.values, param), `${step} ${param}`).toBe(true);
    }
  });
});

it('every starting point has a name of its own', () => {
  expect(new Set(starts.map((s) => s.id)).size).toBe(starts.length);
  expect(new Set(starts.map((s) => s.title)).size).toBe(starts.length);
  expect(starts.length).toBeGreaterThanOrEqual(12);
});
