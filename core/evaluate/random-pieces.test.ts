import { describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { linkPiece } from '../piece/link';
import type { Copies, Mesh } from '../shape/mesh';
import { readPiece, writePiece } from '../piece/read';
import { checkSeam } from '../seam/check';
import { proveSeam } from '../seam/proof';
import { channelBuffers } from '../shape/copy-channels';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon } from './ribbon';
import { rounds } from '../fixtures/effort';

const bytes = (a: Float32Array | Uint32Array) => Buffer.from(a.buffer, a.byteOffset, a.byteLength);

/** Equal copies, in every bit: places, which shape stands where, and those shapes. */
function sameBits({ copies: a }: Mesh, { copies: b }: Mesh): boolean {
  if (!a || !b) return a === b;
  const parts = (c: Copies) => [
    c.matrices,
    c.order,
    ...channelBuffers(c.channels),
    ...c.sources.map((s) => s.positions),
  ];
  return (
    Buffer.from(a.source).equals(Buffer.from(b.source)) &&
    parts(a).length === parts(b).length &&
    parts(a).every((x, i) => bytes(x).equals(bytes(parts(b)[i])))
  );
}

const pieces = Array.from({ length: rounds(32, 90) }, (_, seed) => new Dice(seed + 1).piece());
const linked = pieces.map(linkPiece);

describe('ninety random pieces', () => {
  it('are valid documents, and come back as they were written', () => {
    for (const piece of pieces) {
      const read = readPiece(writePiece(piece));
      if (!read.ok) throw new Error(read.message);
      expect(read.piece).toEqual(JSON.parse(JSON.stringify(piece)));
    }
  });
  it('are proved closed by their turns', () => {
    for (const piece of pieces)
      expect(proveSeam(piece).findings.filter((f) => f.kind === 'gap' && f.address)).toEqual([]);
  });
  it('have the same bits at f = N and f = 0, and at −N and 2N, without wrapping anything', () => {
    for (const piece of linked)
      for (const ribbon of piece.ribbons) {
        // A single body that tumbles onwards, and copies that move on, are elsewhere after a loop, as they should be.
        if (
          ribbon.steps.some(
            (s) => s.kind === 'tumble' || Boolean(s.values.advance) || (s.kind === 'spin' && s.values.symmetry !== 1),
          )
        )
          continue;
        const at = (frame: number) => evaluateRibbon(ribbon, piece.loop, frame, 'draft', new MeshCache()).mesh;
        const first = at(0);
        for (const loops of [-1, 1, 2]) {
          const again = at(loops * piece.loop.frames);
          expect(bytes(again.connectivity.corners).equals(bytes(first.connectivity.corners))).toBe(true);
          expect(bytes(again.positions).equals(bytes(first.positions))).toBe(true);
          expect(sameBits(again, first)).toBe(true);
        }
      }
  }, 180_000);
  it('have only finite points, and one store gives what a fresh one gives', () => {
    const cache = new MeshCache();
    for (const piece of linked.slice(0, 60))
      for (const ribbon of piece.ribbons) {
        const frame = Math.floor(piece.loop.frames / 3);
        const shared = evaluateRibbon(ribbon, piece.loop, frame, 'draft', cache);
        const fresh = evaluateRibbon(ribbon, piece.loop, frame, 'draft', new MeshCache());
        expect(shared.key).toBe(fresh.key);
        expect(bytes(shared.mesh.positions).equals(bytes(fresh.mesh.positions))).toBe(true);
        expect(shared.mesh.positions.every(Number.isFinite)).toBe(true);
        expect(sameBits(shared.mesh, fresh.mesh)).toBe(true);
        expect(shared.mesh.copies?.matrices.every(Number.isFinite) ?? true).toBe(true);
      }
  });
  it('pass the whole seam check', async () => {
    // Copies that move on close only where they are alike; that has tests of its own.
    const steady = (p: (typeof pieces)[number]) =>
      !p.ribbons.some((r) =>
        r.steps.some(
          (s) => s.kind === 'tumble' || Boolean(s.values.advance) || (s.kind === 'spin' && s.values.symmetry !== 1),
        ),
      );
    for (const piece of pieces.filter((p) => p.loop.frames <= 24 && steady(p)).slice(0, 12)) {
      const report = await checkSeam(piece);
      expect(report.closed).toBe(true);
      for (const r of report.ribbons) expect(r.steps).toHaveLength(piece.loop.frames);
    }
  });
  it('with one broken turn are found open at just that value and what follows it', () => {
    let broken = 0;
    for (const piece of pieces) {
      const text = writePiece(piece);
      // A layer that is switched off may miss as it likes.
      if (/"on": false/.test(text)) continue;
      const turns = [...text.matchAll(/"turns": (-?\d+),(?=\s*"phase": [^,]+,\s*"rest": 0\s*\})/g)];
      if (turns.length === 0) continue;
      const hit = turns[0];
      const read = readPiece(
        `${text.slice(0, hit.index)}"turns": ${Number(hit[1]) + 0.25},${text.slice(hit.index + hit[0].length)}`,
      );
      if (!read.ok) throw new Error(read.message);
      const was = proveSeam(piece).findings.filter((f) => f.kind === 'gap').length;
      const { findings, truePeriod } = proveSeam(read.piece);
      expect(findings.filter((f) => f.kind === 'gap')).toHaveLength(was + 1);
      if (was === 0) expect(truePeriod).toBe(4 * piece.loop.frames);
      broken++;
    }
    expect(broken).toBeGreaterThan(10);
  });
});
