import { describe, expect, it } from 'vitest';
import type { NumberParam, Param, Params, StoredValue, VectorParam } from '../declare/params';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { checkSeam } from '../seam/check';
import { proveSeam } from '../seam/proof';
import { stepKinds } from '../steps/index';
import { motionKinds } from '../time/motions/index';
import { randomSource } from '../time/random';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon } from './ribbon';

/**
 * Pieces drawn at random from the declarations themselves: every step, value and motion that is
 * declared, now or later, is held to the promise that whole turns close to the last bit.
 */
class Dice {
  private readonly random: () => number;
  constructor(seed: number) {
    this.random = randomSource(seed);
  }
  between(low: number, high: number): number {
    return low + (high - low) * this.random();
  }
  whole(low: number, high: number): number {
    return Math.floor(this.between(low, high + 1));
  }
  chance(p: number): boolean {
    return this.random() < p;
  }
  of<T>(list: readonly T[]): T {
    return list[this.whole(0, list.length - 1)];
  }

  number(p: NumberParam | VectorParam, name: string): StoredValue {
    // Counts stay small, so that a hundred pieces are checked in seconds.
    const high = /segments|sides|rows|columns|frequency|rings/i.test(name) ? Math.min(p.soft[1], 9) : /level/i.test(name) ? 1 : /iterations/.test(name) ? 5 : p.soft[1];
    const pick = () => {
      const x = this.between(p.soft[0], high);
      return p.integer ? Math.round(x) : x;
    };
    if (!p.moves || !this.chance(0.4)) return pick();
    const kind = this.of(motionKinds);
    const settings = Object.fromEntries(
      Object.entries(kind.params).map(([key, s]) => {
        if (key === 'low' || key === 'high') return [key, pick()];
        if (key === 'turns') return [key, this.whole(-4, 4)];
        if (key === 'rest' && this.chance(0.8)) return [key, 0];
        if (s.type === 'number') return [key, s.integer ? this.whole(s.soft[0], s.soft[1]) : this.between(s.soft[0], s.soft[1])];
        return [key, s.type === 'choice' ? this.of(s.options).value : s.type === 'switch' ? this.chance(0.5) : s.default];
      }),
    );
    if (settings.low === settings.high) [settings.low, settings.high] = [p.soft[0], high];
    return { motion: kind.kind, ...settings } as StoredValue;
  }

  value(p: Param, name: string): StoredValue {
    switch (p.type) {
      case 'number':
        return this.number(p, name);
      case 'vector':
        return [0, 1, 2].map(() => this.number(p, name)) as unknown as StoredValue;
      case 'choice':
        return this.of(p.options).value;
      case 'switch':
        return this.chance(0.5);
      case 'colour':
        return '#336699';
    }
  }

  values(params: Params): Record<string, StoredValue> {
    return Object.fromEntries(Object.entries(params).map(([name, p]) => [name, this.value(p, name)]));
  }

  piece(): Piece {
    const forms = stepKinds.filter((k) => k.group === 'form');
    const others = stepKinds.filter((k) => k.group !== 'form');
    const base = newPiece('Random');
    const ribbons = Array.from({ length: this.whole(1, 2) }, (_, i) => {
      const form = this.of(forms);
      const steps = [form, ...Array.from({ length: this.whole(0, 4) }, () => this.of(others))];
      return { ...newRibbon(form.kind, i), steps: steps.map((k) => newStep(k.kind, this.values(k.params))) };
    });
    return { ...base, loop: { frames: this.of([1, 2, 7, 24, 60, 97, 100]), fps: this.of([24, 25, 29.97]) }, ribbons };
  }
}

const bytes = (a: Float32Array | Uint32Array) => Buffer.from(a.buffer, a.byteOffset, a.byteLength);

const pieces = Array.from({ length: 120 }, (_, seed) => new Dice(seed + 1).piece());

describe('a hundred and twenty random pieces', () => {
  it('are valid documents, and come back as they were written', () => {
    for (const piece of pieces) {
      const read = readPiece(writePiece(piece));
      if (!read.ok) throw new Error(read.message);
      expect(read.piece).toEqual(JSON.parse(JSON.stringify(piece)));
    }
  });
  it('are proved closed by their turns', () => {
    for (const piece of pieces) expect(proveSeam(piece).gaps).toEqual([]);
  });
  it('have the same bits at f = N and f = 0, and at −N and 2N, without wrapping anything', () => {
    for (const piece of pieces)
      for (const ribbon of piece.ribbons) {
        const at = (frame: number) => evaluateRibbon(ribbon, piece.loop, frame, 'draft', new MeshCache()).mesh;
        const first = at(0);
        for (const loops of [-1, 1, 2]) {
          const again = at(loops * piece.loop.frames);
          expect(bytes(again.connectivity.corners).equals(bytes(first.connectivity.corners))).toBe(true);
          expect(bytes(again.positions).equals(bytes(first.positions))).toBe(true);
        }
      }
  });
  it('have only finite points, and one store gives what a fresh one gives', () => {
    const cache = new MeshCache();
    for (const piece of pieces.slice(0, 60))
      for (const ribbon of piece.ribbons) {
        const frame = Math.floor(piece.loop.frames / 3);
        const shared = evaluateRibbon(ribbon, piece.loop, frame, 'draft', cache);
        const fresh = evaluateRibbon(ribbon, piece.loop, frame, 'draft', new MeshCache());
        expect(shared.key).toBe(fresh.key);
        expect(bytes(shared.mesh.positions).equals(bytes(fresh.mesh.positions))).toBe(true);
        expect(shared.mesh.positions.every(Number.isFinite)).toBe(true);
      }
  });
  it('pass the whole seam check', async () => {
    for (const piece of pieces.filter((p) => p.loop.frames <= 24).slice(0, 12)) {
      const report = await checkSeam(piece);
      expect(report.closed).toBe(true);
      for (const r of report.ribbons) expect(r.steps).toHaveLength(piece.loop.frames);
    }
  });
  it('with one broken turn are found open at just that value', () => {
    let broken = 0;
    for (const piece of pieces) {
      const text = writePiece(piece);
      const turns = [...text.matchAll(/"turns": (-?\d+),(?=\s*"phase": [^,]+,\s*"rest": 0\s)/g)];
      if (turns.length === 0) continue;
      const hit = turns[0];
      const read = readPiece(`${text.slice(0, hit.index)}"turns": ${Number(hit[1]) + 0.25},${text.slice(hit.index + hit[0].length)}`);
      if (!read.ok) throw new Error(read.message);
      const { gaps, truePeriod } = proveSeam(read.piece);
      expect(gaps).toHaveLength(1);
      expect(truePeriod).toBe(4 * piece.loop.frames);
      broken++;
    }
    expect(broken).toBeGreaterThan(30);
  });
});
