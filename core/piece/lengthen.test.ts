import { describe, expect, it } from 'vitest';
import { evaluateValues } from '../evaluate/values';
import { proveSeam } from '../seam/proof';
import { stepKind } from '../steps/index';
import type { MotionDoc } from '../time/motion';
import { lengthenLoop } from './lengthen';
import { newPiece, newRibbon, newStep, type Piece } from './piece';
import { readPiece, writePiece } from './read';

const wave = (turns: number): MotionDoc => ({ motion: 'wave', shape: 'sine', width: 50, low: -30, high: 90, turns, phase: 0.1, rest: 0 });

function piece(): Piece {
  const ribbon = newRibbon('torus', 0);
  const base = newPiece('Long');
  const steps = [...ribbon.steps, newStep('displace', { rate: 1.5, height: { motion: 'wander', low: 0, high: 1, rate: 2, octaves: 1, seed: 3 } }), newStep('twist', { angle: wave(2.5) })];
  return { ...base, loop: { frames: 40, fps: 20 }, scene: { ...base.scene, camera: { ...base.scene.camera, target: [0, wave(1), 0] } }, ribbons: [{ ...ribbon, steps }] };
}

describe('a longer loop', () => {
  it('of the true period closes what did not', () => {
    const proof = proveSeam(piece());
    expect(proof.truePeriod).toBe(80);
    const longer = lengthenLoop(piece(), proof.truePeriod! / 40);
    expect(longer.loop).toEqual({ frames: 80, fps: 20 });
    expect(proveSeam(longer)).toMatchObject({ closed: true, truePeriod: 80 });
    expect(readPiece(writePiece(longer)).ok).toBe(true);
  });
  it('moves at the same speed: every wave has the value it had, frame by frame', () => {
    const [short, long] = [piece(), lengthenLoop(piece(), 3)];
    for (let f = 0; f < 120; f += 7) {
      const twist = (p: Piece) => evaluateValues(stepKind('twist').params, p.ribbons[0].steps[2].values, { frame: f, frames: p.loop.frames }).angle as unknown as number;
      expect(twist(long)).toBeCloseTo(twist(short), 9);
    }
  });
  it('has rates per loop that grow with it, in steps and in motions, held to their limits', () => {
    const values = lengthenLoop(piece(), 2).ribbons[0].steps[1].values;
    expect(values.rate).toBe(3);
    expect(values.height).toMatchObject({ rate: 4, low: 0, high: 1, octaves: 1 });
    expect(lengthenLoop(piece(), 100).ribbons[0].steps[1].values.rate).toBe(64);
    expect((lengthenLoop(piece(), 2).scene.camera.target as unknown as MotionDoc[])[1].turns).toBe(2);
  });
  it('leaves everything else alone, and is refused where it would be endless', () => {
    const [a, b] = [piece(), lengthenLoop(piece(), 1)];
    expect(b).toEqual({ ...a, ribbons: b.ribbons });
    expect(() => lengthenLoop(piece(), 1000)).toThrow('cannot be made 1000 times as long');
    expect(() => lengthenLoop(piece(), 1.5)).toThrow(RangeError);
  });
});
