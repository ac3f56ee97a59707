import { linkPiece } from '@maypole/core/piece/link';
import { newPiece, newRibbon, newStep, type RibbonDoc } from '@maypole/core/piece/piece';
import type { MotionDoc } from '@maypole/core/time/motion';
import { describe, expect, it } from 'vitest';
import { Evaluator, topologyKey } from './evaluator';
import type { EvaluateResult, PartResult } from './protocol';

const loop = { frames: 20, fps: 25 };
const sway: MotionDoc = { motion: 'wave', shape: 'sine', low: 0.4, high: 1.2, turns: 1, phase: 0 };
const chain = (...steps: ReturnType<typeof newStep>[]): RibbonDoc =>
  linkPiece({
    ...newPiece('Workers'),
    loop,
    ribbons: [
      {
        ...newRibbon('box', 0),
        steps: [
          newStep('box', { segments: 1 }),
          newStep('repeat-line', { count: 4, way: [sway, 0, 0] as never }),
          ...steps,
        ],
      },
    ],
  }).ribbons[0];

const ask = (evaluator: Evaluator, ribbon: RibbonDoc, frame: number, have: string[] = []) =>
  evaluator.handle({ type: 'evaluate', id: 1, ribbon, loop, frame, detail: 'draft', have })!.message as EvaluateResult;

describe('two workers', () => {
  for (const last of [newStep('links', { radius: 3, keep: true }), newStep('thread', {})])
    it(`call the same shape the same, and other shapes otherwise, after ${last.kind}`, () => {
      const ribbon = chain(last);
      const workers = [new Evaluator(), new Evaluator()];
      const known = new Map<string, PartResult>();
      let met = 0;
      // One works the even frames and a few odd ones, in another order than the other.
      for (const [w, frames] of [
        [0, [0, 2, 4, 6, 8, 5, 7]],
        [1, [7, 5, 3, 1, 9, 8, 0]],
      ] as const)
        for (const f of frames)
          for (const part of ask(workers[w], ribbon, f).parts ?? []) {
            const before = known.get(part.key);
            if (!before?.positions || !part.positions) known.set(part.key, part);
            else {
              met++;
              expect([...part.positions]).toEqual([...before.positions]);
              expect(part.topologyKey).toBe(before.topologyKey);
            }
          }
      expect(met).toBeGreaterThan(3);
      expect(known.size).toBeGreaterThan(3);
    });
});

describe('the key of a connectivity', () => {
  const base = { vertexCount: 4, faceStart: Uint32Array.of(0, 4), corners: Uint32Array.of(0, 1, 2, 3) };
  const curves = { start: Uint32Array.of(0, 4), points: Uint32Array.of(0, 1, 2, 3), closed: Uint8Array.of(1) };
  it('tells apart all that drawing depends on', () => {
    const keys = [
      base,
      { ...base, faceStart: Uint32Array.of(0, 3, 4) },
      { ...base, slots: Uint8Array.of(1) },
      { ...base, shadingGroups: Uint16Array.of(1) },
      { ...base, uv: Float32Array.of(0, 0, 1, 0, 1, 1, 0, 1) },
      { ...base, uv: Float32Array.of(0, 0, 1, 0, 1, 1, 0, 0.5) },
      { ...base, curves },
      { ...base, curves: { ...curves, closed: Uint8Array.of(0) } },
      { ...base, curves: { ...curves, start: Uint32Array.of(0, 2, 4), closed: Uint8Array.of(1, 1) } },
    ].map((c) => topologyKey({ ...c }));
    expect(new Set(keys).size).toBe(keys.length);
    expect(topologyKey({ ...base, curves: { ...curves } })).toBe(keys[6]);
  });
});
