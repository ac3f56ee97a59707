import { describe, expect, it } from 'vitest';
import { facesShown } from '../copies/copies';
import { Dice } from '../fixtures/dice';
import { linkPiece } from '../piece/link';
import { newPiece, newRibbon, newStep } from '../piece/piece';
import { closureOf } from '../seam/distance';
import { sameCopies } from '../seam/copies-distance';
import { proveSeam } from '../seam/proof';
import type { Copies } from '../shape/mesh';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon } from './ribbon';
import { rounds } from '../fixtures/effort';

const FRAMES = [1, 7, 24, 60];

/** Determinant of the linear part of a copy's matrix, in units of its own sizes: 1 for a turn, 0 where an axis is gone. */
function determinant(m: Float32Array, o: number): { value: number; sizes: number[] } {
  const c = [0, 4, 8].map((k) => [m[o + k], m[o + k + 1], m[o + k + 2]]);
  const sizes = c.map((v) => Math.hypot(...v));
  const [a, b, d] = c;
  const det =
    a[0] * (b[1] * d[2] - b[2] * d[1]) - a[1] * (b[0] * d[2] - b[2] * d[0]) + a[2] * (b[0] * d[1] - b[1] * d[0]);
  return { value: det / (sizes[0] * sizes[1] * sizes[2] || 1), sizes };
}

function expectSound({ matrices, source, sources, order }: Copies): void {
  expect(matrices.every(Number.isFinite)).toBe(true);
  expect(order.every(Number.isFinite)).toBe(true);
  expect(source.every((s) => s < sources.length)).toBe(true);
  for (let o = 0; o < matrices.length; o += 16) {
    const { value, sizes } = determinant(matrices, o);
    // A copy is a turned and sized body: never pressed flat or turned inside out, unless a size is none.
    if (sizes.every((s) => s > 1e-3)) expect(value).toBeGreaterThan(0.99);
  }
}

describe('eighty random ribbons of copies', () => {
  const pieces = Array.from({ length: rounds(26, 80) }, (_, i) =>
    linkPiece(new Dice(i + 1000).copies(FRAMES[i % 4], false)),
  );
  it('close bit for bit, have no number that is none, and no copy without a size that has no volume', () => {
    let copies = 0;
    for (const piece of pieces) {
      const at = (frame: number) => evaluateRibbon(piece.ribbons[0], piece.loop, frame, 'draft', new MeshCache());
      const [first, last, middle] = [0, piece.loop.frames, Math.floor(piece.loop.frames / 2)].map(at);
      if (!first.mesh.copies) continue;
      copies++;
      expect(sameCopies(first.mesh, last.mesh), JSON.stringify(piece.ribbons[0].steps.map((s) => s.kind))).toBe(true);
      expect(proveSeam(piece).findings.filter((f) => f.kind === 'gap')).toEqual([]);
      for (const { mesh } of [first, middle]) expectSound(mesh.copies!);
    }
    expect(copies).toBeGreaterThan(rounds(18, 60));
  });
  it('are the same from a store that has seen other frames', () => {
    for (const piece of pieces.slice(0, 30)) {
      const cache = new MeshCache();
      const ribbon = piece.ribbons[0];
      for (const frame of [0, 3, 1]) evaluateRibbon(ribbon, piece.loop, frame, 'draft', cache);
      const [known, fresh] = [cache, new MeshCache()].map((c) => evaluateRibbon(ribbon, piece.loop, 1, 'draft', c));
      expect(known.key).toBe(fresh.key);
      if (fresh.mesh.copies) expect(sameCopies(known.mesh, fresh.mesh)).toBe(true);
    }
  });
});

describe('forty random repeats that move on by whole places', () => {
  it('are the same set of copies after a loop, whatever bends them', () => {
    let permuted = 0;
    for (let i = 0; i < rounds(16, 40); i++) {
      const piece = linkPiece(new Dice(i + 5000).copies([7, 24][i % 2], true));
      const at = (frame: number) => evaluateRibbon(piece.ribbons[0], piece.loop, frame, 'draft', new MeshCache()).mesh;
      const [first, last] = [at(0), at(piece.loop.frames)];
      if (!first.copies) continue;
      const { how } = closureOf(first, last);
      // Jitter and the like go by number, so that copies that change places are changed otherwise.
      if (piece.ribbons[0].steps.some((s) => s.kind === 'jitter')) continue;
      expect(how, JSON.stringify(piece.ribbons[0].steps.map((s) => s.kind))).not.toBe('open');
      if (how === 'permuted') permuted++;
    }
    expect(permuted).toBeGreaterThan(rounds(2, 5));
  });
});

describe('copies of copies', () => {
  it('multiply: 3 on a line, on a ring of 5, in a grid of 4 are 60, with faces to match', () => {
    const steps = [
      newStep('platonic'),
      newStep('repeat-line', { count: 3 }),
      newStep('repeat-rings', { count: 5 }),
      newStep('repeat-grid', { columns: 2, rows: 2 }),
    ];
    const { mesh, notes } = evaluateRibbon(
      { ...newRibbon('platonic', 0), steps },
      newPiece().loop,
      0,
      'draft',
      new MeshCache(),
    );
    expect(notes.map((n) => n.copies)).toEqual([3, 15, 60]);
    expect(mesh.copies!.sources).toHaveLength(1);
    expect(facesShown(mesh)).toBe(60 * mesh.copies!.sources[0].connectivity.faceStart.length - 60);
    // Lists are multiplied and not faces: the source is what the form made.
    expect(mesh.positions).toBe(mesh.copies!.sources[0].positions);
  });
});
