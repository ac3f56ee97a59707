import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { describe, expect, it } from 'vitest';
import { newRibbon, newStep, type StepDoc } from '../piece/piece';
import { MeshCache } from './mesh-cache';
import { evaluateRibbon } from './ribbon';

const sway = { motion: 'wave', shape: 'sine', low: -60, high: 60, turns: 1, phase: 0 };
// Counts that no other test has: what those have made already would be held, and not grow.
const chains: Record<string, StepDoc[]> = {
  'a form that moves on one connectivity': [
    newStep('torus', { ringSegments: 119, pipeSegments: 41 }),
    newStep('subdivide'),
    newStep('twist', { angle: sway }),
  ],
  copies: [
    newStep('box', { segments: 2 }),
    newStep('repeat-grid', { columns: 30, rows: 20, layers: 10 }),
    newStep('vary', { what: 'turn', turnTo: [0, sway as never, 0] }),
  ],
  'a connectivity that is another at every frame': [
    newStep('sphere', { meridians: 53, parallels: 31 }),
    newStep('thin-out', { share: { ...sway, low: 10, high: 90 } as never }),
    newStep('shell'),
  ],
};

/** Memory that is let go is given back by a thread of its own, and late where both processors are busy. */
async function settled(gc: () => void): Promise<void> {
  let [last, same] = [-1, 0];
  for (let i = 0; i < 100 && same < 6; i++) {
    gc();
    await new Promise((resolve) => setTimeout(resolve, 25));
    const now = process.memoryUsage().arrayBuffers;
    same = now === last ? same + 1 : 0;
    last = now;
  }
}

describe('the memory that is counted', () => {
  for (const [name, steps] of Object.entries(chains))
    it(`is that of the buffers held, within a tenth: ${name}`, async () => {
      setFlagsFromString('--expose-gc');
      const gc = runInNewContext('gc') as () => void;
      const ribbon = { ...newRibbon('box', 0), steps };
      // What kernels and libraries take once is there before it is measured; connectivities are others there.
      evaluateRibbon(
        { ...ribbon, steps: [newStep('cone'), ...steps.slice(1)] },
        { frames: 60, fps: 25 },
        0,
        'final',
        new MeshCache(),
      );
      const cache = new MeshCache(1e12);
      await settled(gc);
      const before = process.memoryUsage().arrayBuffers;
      for (let f = 0; f < 60; f++) evaluateRibbon(ribbon, { frames: 60, fps: 25 }, f, 'final', cache);
      await settled(gc);
      const grown = process.memoryUsage().arrayBuffers - before;
      expect(cache.held).toBeGreaterThan(1e6);
      expect(grown / cache.held).toBeGreaterThan(0.9);
      expect(grown / cache.held).toBeLessThan(1.1);
    });
  it('holds to its budget, and counts down as shapes are let go', () => {
    const cache = new MeshCache(24e6);
    const ribbon = { ...newRibbon('box', 0), steps: chains['a form that moves on one connectivity'] };
    for (let f = 0; f < 40; f++) {
      evaluateRibbon(ribbon, { frames: 60, fps: 25 }, f, 'draft', cache);
      // The newest shape stays, however large it is.
      expect(cache.held).toBeLessThan(36e6);
    }
  });
});
