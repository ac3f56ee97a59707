import { afterEach, describe, expect, it, vi } from 'vitest';
import { linkPiece } from '../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc, type StepDoc } from '../piece/piece';
import { checkSeam } from '../seam/check';
import { stepKind } from '../steps/index';
import { provideAsset } from './assets';
import { form } from '../fixtures/forms';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon, ribbonFingerprint } from './ribbon';

const loop = { frames: 24, fps: 12 };
const wave = (low: number, high: number, turns = 1) =>
  ({ motion: 'wave', shape: 'sine', width: 50, low, high, turns, phase: 0, rest: 0 }) as never;
const ribbon = (...steps: StepDoc[]): RibbonDoc => ({ ...newRibbon('box', 0), steps });

/** How often each step works while something is done. */
function counted(kinds: readonly string[], work: () => void): Record<string, number> {
  const spies = kinds.map((k) => vi.spyOn(stepKind(k), 'evaluate'));
  work();
  return Object.fromEntries(kinds.map((k, i) => [k, spies[i].mock.calls.length]));
}

afterEach(() => vi.restoreAllMocks());

describe('only what moves is computed again', () => {
  const chain = ['torus', 'subdivide', 'twist', 'taper', 'inflate', 'spherify', 'smooth', 'bend'];
  it('in a chain of eight steps with one moving value in the last, a frame costs that last step', () => {
    const r = ribbon(
      ...chain.map((k) =>
        newStep(k, k === 'bend' ? { angle: wave(0, 80) } : k === 'torus' ? { ringSegments: 12, pipeSegments: 8 } : {}),
      ),
    );
    const calls = counted(chain, () => {
      const cache = new MeshCache();
      for (let f = 0; f < 24; f++) evaluateRibbon(r, loop, f, 'draft', cache);
    });
    for (const k of chain.slice(0, -1)) expect(calls[k], k).toBe(1);
    // A sine passes through most of its heights twice, which are the same shape.
    expect(calls.bend).toBeLessThanOrEqual(24);
    expect(calls.bend).toBeGreaterThan(10);
  });
  it('a value moving in the third step costs from there on', () => {
    const r = ribbon(
      newStep('torus', { ringSegments: 12, pipeSegments: 8 }),
      newStep('subdivide'),
      newStep('twist', { angle: wave(0, 10, 1) }),
      newStep('smooth'),
    );
    const calls = counted(['torus', 'subdivide', 'twist', 'smooth'], () => {
      const cache = new MeshCache();
      for (const f of [0, 1, 2, 3]) evaluateRibbon(r, loop, f, 'draft', cache);
    });
    expect(calls).toEqual({ torus: 1, subdivide: 1, twist: 4, smooth: 4 });
  });
  it('another ribbon that stands still is made once, and one that moves makes its user move', () => {
    const piece = (moving: boolean): Piece => {
      const path = {
        ...newRibbon('curve', 1),
        id: 'path',
        steps: [newStep('curve', { size: moving ? wave(1, 2) : 1 })],
      };
      return {
        ...newPiece(),
        loop,
        ribbons: [ribbon(newStep('box', { segments: 2 }), newStep('along', { other: 'path' })), path],
      };
    };
    const calls = (moving: boolean) =>
      counted(['curve', 'along'], () => {
        const cache = new MeshCache();
        for (let f = 0; f < 6; f++) evaluateRibbon(linkPiece(piece(moving)).ribbons[0], loop, f, 'draft', cache);
      });
    expect(calls(false)).toEqual({ curve: 1, along: 1 });
    vi.restoreAllMocks();
    expect(calls(true)).toEqual({ curve: 6, along: 6 });
  });
  it('a region whose patches change makes its step change, one that stands does not', () => {
    const at = (regionRate: number) => {
      const r = ribbon(
        newStep('box', { segments: 4 }),
        newStep('inflate', { region: 'patches', regionRate, amount: 0.3 }),
      );
      const cache = new MeshCache();
      return new Set([0, 5, 11].map((f) => evaluateRibbon(r, loop, f, 'draft', cache).key)).size;
    };
    expect([at(0), at(1)]).toEqual([1, 3]);
  });
  it('a file that arrives later makes another shape', () => {
    const name = 'a'.repeat(64);
    const r = ribbon(newStep('imported', { file: name }));
    const cache = new MeshCache();
    const before = evaluateRibbon(r, loop, 0, 'draft', cache);
    expect(before.problems[0].message).toContain('not kept with this piece');
    provideAsset(name, { type: 'shape', mesh: form('box') });
    const after = evaluateRibbon(r, loop, 0, 'draft', cache);
    expect(after.problems).toEqual([]);
    expect(after.key).not.toBe(before.key);
  });
});

describe('ribbons that work with others, at the seam', () => {
  const cutter = (turns: number) => ({
    ...newRibbon('torus', 1),
    id: 'ring',
    name: 'Ring',
    steps: [newStep('torus', { ringSegments: 12, pipeSegments: 6, ringRadius: wave(0.6, 1.2, turns) })],
  });
  const user = ribbon(
    newStep('geodesic', { frequency: 5 }),
    newStep('push', { away: 'ribbon', other: 'ring', amount: 0.3 }),
  );
  it('close when the others do', async () => {
    const report = await checkSeam({ ...newPiece(), loop, ribbons: [user, cutter(2)] });
    expect(report.closed).toBe(true);
    expect(report.ribbons.map((r) => r.closure.how)).toEqual(['exact', 'exact']);
  });
  it('are open with them, and the value that does it is named where it stands', async () => {
    const report = await checkSeam({ ...newPiece(), loop, ribbons: [user, cutter(1.25)] });
    expect(report.closed).toBe(false);
    expect(report.ribbons.map((r) => r.closure.how)).toEqual(['open', 'open']);
    expect(report.proof.findings.filter((f) => f.kind === 'gap').map((f) => f.place)).toEqual(['Ring']);
  });
  it('are worked out anew when the other is edited: its shape is part of their fingerprint', () => {
    const print = (turns: number) =>
      ribbonFingerprint(linkPiece({ ...newPiece(), loop, ribbons: [user, cutter(turns)] }).ribbons[0], loop, 'draft');
    expect(print(1)).not.toBe(print(2));
  });
});
