import { beforeAll, describe, expect, it } from 'vitest';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { linkPiece } from '../piece/link';
import { readPiece, writePiece } from '../piece/read';
import { proveSeam } from '../seam/proof';
import { stepKinds } from '../steps/index';
import { exampleOf } from './examples';

beforeAll(async () => {
  for (const k of stepKinds) await k.load?.();
});

describe.each(stepKinds.map((k) => [k.title, k] as const))('%s', (_, { kind, title }) => {
  it('has an example that works, closes and moves', () => {
    const piece = exampleOf(kind);
    const read = readPiece(writePiece(piece));
    expect(read.ok ? '' : read.message).toBe('');
    expect(proveSeam(piece).findings.map((f) => f.kind)).toEqual([]);
    const at = (f: number) => {
      const cache = new MeshCache();
      const linked = linkPiece(piece);
      return evaluateRibbon(linked.ribbons[0], piece.loop, f, 'draft', cache);
    };
    const [a, b] = [at(0), at(20)];
    // An imported form has no file to show; everything else has something, and does what it says.
    if (kind === 'imported') return;
    expect(a.problems.map((p) => p.message)).toEqual([]);
    expect(a.mesh.connectivity.vertexCount).toBeGreaterThan(3);
    expect(a.mesh.connectivity.vertexCount).toBeLessThan(80_000);
    expect(a.key === b.key, `${title} stands still`).toBe(false);
  });
});
