import { describe, expect, it } from 'vitest';
import { newPiece, newRibbon, newStep, type RibbonDoc } from '../piece/piece';
import type { MotionDoc } from '../time/motion';
import { fingerprint } from '../maths/hash';
import { MeshCache } from './mesh-cache';
import { EMPTY_MESH, evaluateRibbon, ribbonFingerprint } from './ribbon';
import { PLAIN_SURFACE } from '../finish/surface';
import { surfacesOf } from '../finish/finish';
import { withFinish, withScene } from '../fixtures/edit';
import { sceneAt } from './picture-at';
import { fitFrame, orbitPose, verticalFov } from '../scene/lens';

const loop = { frames: 60, fps: 30 };
const wave = (low: number, high: number, turns = 1): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  low,
  high,
  turns,
  phase: 0,
});

function ribbon(...steps: ReturnType<typeof newStep>[]): RibbonDoc {
  return { ...newRibbon('torus', 0), steps };
}
const ring = newStep('torus', { ringSegments: 16, pipeSegments: 8 });

describe('evaluating a ribbon', () => {
  it('gives bit-identical buffers at f = 0 and f = N for a closed one, from fresh stores', () => {
    const moving = ribbon(
      ring,
      newStep('displace', { rate: 1.5, height: wave(0.1, 0.4, 2) }),
      newStep('subdivide'),
      newStep('smooth'),
      newStep('twist', { angle: wave(-90, 90) }),
    );
    const [a, b] = [0, 60].map((f) => evaluateRibbon(moving, loop, f, 'draft', new MeshCache()).mesh.positions);
    expect(b).toEqual(a);
    const half = evaluateRibbon(moving, loop, 30, 'draft', new MeshCache()).mesh.positions;
    expect(half).not.toEqual(a);
  });
  it('never lends the shape of frame 0 to frame N', () => {
    const cache = new MeshCache();
    const moving = ribbon(ring, newStep('displace', { rate: 1 }));
    const [a, b] = [0, 60].map((f) => evaluateRibbon(moving, loop, f, 'draft', cache));
    expect(b.key).not.toBe(a.key);
    expect(b.mesh).not.toBe(a.mesh);
  });
  it('computes what stands still once', () => {
    const cache = new MeshCache();
    const half = ribbon(ring, newStep('subdivide'), newStep('twist', { angle: wave(0, 90) }));
    evaluateRibbon(half, loop, 0, 'draft', cache);
    const still = { ...half, steps: half.steps.slice(0, 2) };
    const first = evaluateRibbon(still, loop, 7, 'draft', cache);
    expect(evaluateRibbon(still, loop, 31, 'draft', cache).mesh).toBe(first.mesh);
  });
  it('passes over steps that are off', () => {
    const twist = newStep('twist');
    const cache = new MeshCache();
    const plain = evaluateRibbon(ribbon(ring), loop, 0, 'draft', cache);
    expect(evaluateRibbon(ribbon(ring, { ...twist, on: false }), loop, 0, 'draft', cache).mesh).toBe(plain.mesh);
    expect(evaluateRibbon(ribbon({ ...ring, on: false }), loop, 0, 'draft', cache).mesh).toBe(EMPTY_MESH);
  });
  it('follows the order of the steps', () => {
    const [d, s] = [newStep('displace', { rate: 0 }), newStep('subdivide')];
    const at = (...steps: ReturnType<typeof newStep>[]) =>
      evaluateRibbon(ribbon(ring, ...steps), loop, 0, 'draft', new MeshCache()).mesh.positions;
    expect(at(d, s)).not.toEqual(at(s, d));
  });
  it('says what a step cannot do, on its step, and passes the shape through', () => {
    const much = newStep('subdivide', { draftLevel: 7 });
    const r = evaluateRibbon(
      ribbon(newStep('torus', { ringSegments: 240, pipeSegments: 120 }), much, newStep('twist')),
      loop,
      0,
      'draft',
      new MeshCache(),
    );
    expect(r.problems.map((p) => p.step)).toEqual([much.id]);
    expect(r.problems[0].message).toContain('Lower the draft level');
    expect(r.mesh.connectivity.vertexCount).toBe(240 * 120);
  });
  it('says so when a ribbon begins without a form, or has a second one', () => {
    expect(evaluateRibbon(ribbon(newStep('twist')), loop, 0, 'draft', new MeshCache()).problems[0].message).toContain(
      'begins with a form',
    );
    expect(
      evaluateRibbon(ribbon(ring, newStep('box')), loop, 0, 'draft', new MeshCache()).problems[0].message,
    ).toContain('can only begin a ribbon');
  });
  it('has different detail only where a step has', () => {
    const keys = (r: RibbonDoc) =>
      (['draft', 'final'] as const).map((d) => evaluateRibbon(r, loop, 0, d, new MeshCache()).key);
    expect(new Set(keys(ribbon(ring, newStep('twist')))).size).toBe(1);
    expect(new Set(keys(ribbon(ring, newStep('subdivide')))).size).toBe(2);
  });
  it('keeps motions closed whatever the length of the loop', () => {
    const moving = ribbon(ring, newStep('displace', { rate: 0.8 }), newStep('twist', { angle: wave(0, 45, 3) }));
    for (const frames of [1, 7, 100, 241]) {
      const [a, b] = [0, frames].map(
        (f) => evaluateRibbon(moving, { frames, fps: 24 }, f, 'draft', new MeshCache()).mesh.positions,
      );
      expect(b).toEqual(a);
    }
  });
});

describe('fingerprints', () => {
  it('of a ribbon change with its steps, length and detail, and not with name, finish or rate', () => {
    const base = ribbon(ring, newStep('twist'));
    const print = ribbonFingerprint(base, loop, 'draft');
    expect(
      ribbonFingerprint({ ...base, name: 'Other', finishes: [], colour: '#000000' }, { ...loop, fps: 12 }, 'draft'),
    ).toBe(print);
    expect(ribbonFingerprint(base, { ...loop, frames: 61 }, 'draft')).not.toBe(print);
    expect(ribbonFingerprint(base, loop, 'final')).not.toBe(print);
  });
  it('differ for a hundred thousand texts that differ little', () => {
    expect(new Set(Array.from({ length: 100_000 }, (_, i) => fingerprint(`torus|${i / 1000}`))).size).toBe(100_000);
  });
});

describe('mesh cache', () => {
  it('lets the longest unused go when the budget is used up', () => {
    const mesh = (n: number) => ({ ...EMPTY_MESH, positions: new Float32Array(n) });
    const cache = new MeshCache(1000);
    for (const key of ['a', 'b']) cache.set(key, mesh(100));
    cache.get('a');
    cache.set('c', mesh(100));
    expect(['a', 'b', 'c'].map((k) => cache.get(k) !== undefined)).toEqual([true, false, true]);
  });
});

describe('scene', () => {
  it('angle of view follows the thin lens: 2·atan(36 / 2f) along the longer side', () => {
    // Tables of 35 mm photography: 50 mm sees 39.6° across 36 mm and 27.0° across 24 mm.
    expect(verticalFov(50, 2 / 3)).toBeCloseTo(39.6, 1);
    expect(verticalFov(50, 3 / 2)).toBeCloseTo(27.0, 1);
    expect(verticalFov(25, 1)).toBeCloseTo(71.5, 1);
  });
  it('the whole output frame fits into any viewport', () => {
    const wide = fitFrame(50, 1, 2);
    expect(wide).toMatchObject({ width: 0.5, height: 1 });
    const tall = fitFrame(50, 2, 1);
    expect(tall).toMatchObject({ width: 1, height: 0.5 });
    // The tangents scale with the picture's height.
    expect(Math.tan((tall.fov * Math.PI) / 360)).toBeCloseTo(2 * Math.tan((verticalFov(50, 2) * Math.PI) / 360), 9);
  });
  it('camera goes round its target', () => {
    expect(orbitPose(0, 0, 5, [1, 2, 3]).position).toEqual([1, 2, 8]);
    orbitPose(90, 0, 5, [0, 0, 0]).position.forEach((x, k) => expect(x).toBeCloseTo([5, 0, 0][k], 9));
    orbitPose(10, 90, 2, [0, 0, 0]).position.forEach((x, k) => expect(x).toBeCloseTo([0, 2, 0][k], 9));
  });
  it('camera, light and finish may move, and close', () => {
    const piece = withScene(withScene(newPiece(), 'cameras', { azimuth: wave(0, 30) }), 'lights', {
      strength: wave(50, 150),
    });
    expect(sceneAt(piece, 100)).toEqual(sceneAt(piece, 0));
    expect(sceneAt(piece, 25).lights[0]).toMatchObject({ type: 'studio', strength: expect.closeTo(1.5, 9) });
    const { finishes } = withFinish(
      withFinish(newRibbon('box', 0), { colour: '#112233', roughness: wave(0, 100), metalness: 20 }),
      { roughness: 30 },
      'inside',
    );
    expect(surfacesOf(finishes, { frame: 25, frames: 100 })).toEqual({
      0: { ...PLAIN_SURFACE, baseColor: '#112233', roughness: 1, metalness: 0.2 },
      1: { ...PLAIN_SURFACE, baseColor: '#F1EDE4', roughness: 0.3, metalness: 0 },
    });
    // A finish that is off is worn by nobody; that of the form always is.
    expect(
      Object.keys(
        surfacesOf(
          finishes.map((f) => ({ ...f, on: false })),
          { frame: 0, frames: 100 },
        ),
      ),
    ).toEqual(['0']);
  });
});
