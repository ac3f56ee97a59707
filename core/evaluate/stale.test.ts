import { beforeAll, describe, expect, it } from 'vitest';
import { Dice } from '../fixtures/dice';
import { numbersOf, setValue } from '../piece/addresses';
import { linkPiece } from '../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type StepDoc } from '../piece/piece';
import { stepKinds } from '../steps/index';
import type { Mesh } from '../shape/mesh';
import { channelBuffers } from '../shape/copy-channels';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon } from './ribbon';
import { rounds } from '../fixtures/effort';

beforeAll(async () => {
  for (const kind of stepKinds) await kind.load?.();
});

const bytes = (a: ArrayBufferView) => Buffer.from(a.buffer, a.byteOffset, a.byteLength);
/** All of a shape that is seen, as one buffer. */
function allOf({ positions, connectivity, copies }: Mesh): Buffer {
  return Buffer.concat([
    bytes(positions),
    bytes(connectivity.corners),
    ...(copies
      ? [
          copies.matrices,
          copies.order,
          copies.source,
          ...channelBuffers(copies.channels),
          ...copies.sources.map((s) => s.positions),
        ].map(bytes)
      : []),
  ]);
}
/** The shapes of a piece by a cache that has seen much, and by one that has seen nothing, are the same. */
function expectFresh(piece: Piece, cache: MeshCache, frames: readonly number[], what: string) {
  const linked = linkPiece(piece);
  for (const frame of frames)
    for (const ribbon of linked.ribbons) {
      const shared = evaluateRibbon(ribbon, piece.loop, frame, 'draft', cache);
      const fresh = evaluateRibbon(ribbon, piece.loop, frame, 'draft', new MeshCache());
      expect(shared.key, what).toBe(fresh.key);
      expect(allOf(shared.mesh).equals(allOf(fresh.mesh)), `${what} at ${frame}`).toBe(true);
    }
}
const wave = (low: number, high: number) =>
  ({ motion: 'wave', shape: 'sine', width: 50, low, high, turns: 1, phase: 0, rest: 0 }) as never;

describe('no shape is a stale one', () => {
  it('Nest, each later: a wave that goes further is another shape, at frame 0 too', () => {
    const piece = (reach: number): Piece => ({
      ...newPiece(),
      ribbons: [
        {
          ...newRibbon('box', 0),
          id: 'r',
          steps: [newStep('box'), { ...newStep('nest', { later: 10, turn: [0, wave(-reach, reach), 0] }), id: 'n' }],
        },
      ],
    });
    const cache = new MeshCache();
    for (const reach of [30, 80]) expectFresh(piece(reach), cache, [0, 7], `± ${reach}`);
  });
  it('over all steps, with values at random that move, each changed one by one', () => {
    const dice = new Dice(4711);
    for (const kind of stepKinds) {
      // A form of faces for all, and one of curves; copies for those that want some.
      for (const before of [['box'], ['curve'], ['box', 'repeat-line']]) {
        if (kind.group === 'form' && before[0] !== 'box') continue;
        const values = {
          ...dice.values(kind.params),
          ...(kind.kind === 'stream' ? { count: 6, burst: 1, life: 1 } : {}),
        };
        const step = newStep(kind.kind, values);
        const steps = kind.group === 'form' ? [step] : [...before.map((k) => newStep(k)), step];
        let piece: Piece = {
          ...newPiece(),
          loop: { frames: 24, fps: 12 },
          ribbons: [{ ...newRibbon('box', 0), steps }],
        };
        const cache = new MeshCache();
        expectFresh(piece, cache, [0, 5], kind.kind);
        const places = numbersOf(piece).filter((n) => 'ribbon' in n.address.owner);
        for (let k = 0; k < rounds(1, 3); k++) {
          const { address, param } = dice.of(places);
          if (param.integer) continue;
          piece = setValue(
            piece,
            address,
            param.moves && dice.chance(0.6) ? dice.motion(param) : dice.between(...param.soft),
          );
          expectFresh(piece, cache, [0, 5], `${kind.kind} ${address.param}`);
        }
      }
    }
  }, 900_000);
  it('over random chains, with steps switched, thrown again and put elsewhere', () => {
    for (let seed = 1; seed <= rounds(5, 14); seed++) {
      const dice = new Dice(9000 + seed);
      let piece = seed % 2 ? dice.piece() : dice.copies(24, false);
      const cache = new MeshCache();
      for (let k = 0; k < 5; k++) {
        expectFresh(piece, cache, [0, 3], `seed ${seed}, edit ${k}`);
        const at = dice.whole(0, piece.ribbons.length - 1);
        const edit = (steps: readonly StepDoc[]): readonly StepDoc[] => {
          const i = dice.whole(1, Math.max(1, steps.length - 1));
          const which = dice.whole(0, 2);
          if (which === 0) return steps.map((s, j) => (j === i ? { ...s, on: !s.on } : s));
          if (which === 1) return steps.map((s, j) => (j === i ? { ...s, chance: dice.whole(1, 999) } : s));
          return [steps[0], ...steps.slice(1).reverse()];
        };
        const ribbons = piece.ribbons.map((r, i) => (i === at ? { ...r, steps: edit(r.steps) } : r));
        piece = { ...piece, ribbons };
      }
    }
  }, 600_000);
  it('a step that does not say that it reads the clock is the same at every moment', () => {
    const dice = new Dice(31);
    const clock = (frame: number) => ({ clock: { frame, frames: 24 }, detail: 'final' as const });
    const box = evaluateRibbon(newRibbon('box', 0), { frames: 24, fps: 12 }, 0, 'final', new MeshCache()).mesh;
    let looked = 0;
    for (const kind of stepKinds)
      for (let k = 0; k < 4; k++) {
        const values = Object.fromEntries(
          Object.entries(kind.params).map(([name, p]) => {
            if (p.type === 'number')
              return [name, p.integer ? dice.whole(p.soft[0], Math.min(p.soft[1], 8)) : dice.between(...p.soft)];
            if (p.type === 'vector') return [name, [0, 1, 2].map(() => dice.between(...p.soft))];
            return [name, p.type === 'choice' ? dice.of(p.options).value : p.default];
          }),
        ) as never;
        const { reads } = kind;
        const says = (what: 'clock' | 'loop') => {
          const when = reads?.[what];
          return when === true || (when?.(values) ?? false);
        };
        if (says('clock') || says('loop')) continue;
        const at = (frame: number) => {
          try {
            return allOf(kind.evaluate(values, kind.group === 'form' ? { ...box } : box, clock(frame)));
          } catch (error) {
            return Buffer.from(String(error));
          }
        };
        expect(at(5).equals(at(0)), `${kind.kind} ${JSON.stringify(values)}`).toBe(true);
        looked++;
      }
    expect(looked).toBeGreaterThan(100);
  }, 600_000);
});
