import { describe, expect, it } from 'vitest';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { evaluateValues } from '../time/values';
import { proveSeam } from '../seam/proof';
import { stepKind, stepKinds } from '../steps/index';
import { Dice } from '../fixtures/dice';
import type { MotionDoc } from '../time/motion';
import { evaluateNumber } from '../time/value';
import { finishParts } from '../finish/parts/index';
import { patterns } from '../pattern/kinds/index';
import { sceneListNames, sceneLists } from '../scene/index';
import { lengthenLoop, powerOf } from './lengthen';
import { finishValues, withFinish, withScene } from '../fixtures/edit';
import { newPiece, newRibbon, newStep, type Piece } from './piece';
import { readPiece, writePiece } from './read';

const wave = (turns: number): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  width: 50,
  low: -30,
  high: 90,
  turns,
  phase: 0.1,
  rest: 0,
});

function piece(): Piece {
  const ribbon = newRibbon('torus', 0);
  const base = newPiece('Long');
  const steps = [
    ...ribbon.steps,
    newStep('displace', { rate: 1.5, height: { motion: 'wander', low: 0, high: 1, rate: 2, octaves: 1, seed: 3 } }),
    newStep('twist', { angle: wave(2.5) }),
  ];
  return {
    ...withScene(base, 'cameras', { target: [0, wave(1), 0] as never }),
    loop: { frames: 40, fps: 20 },
    ribbons: [{ ...ribbon, steps }],
  };
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
  it('keeps the pace of streams, delays and swings: what is per loop grows, what is measured in loops shrinks', () => {
    const p: Piece = {
      ...newPiece('Long'),
      loop: { frames: 40, fps: 20 },
      ribbons: [
        {
          ...newRibbon('box', 0),
          steps: [
            newStep('box'),
            newStep('stream', {
              count: 100,
              life: 1.5,
              stays: 0.5,
              speed: 2,
              fall: 3,
              drag: 1.5,
              flow: 1,
              flowRate: 0.5,
            }),
            newStep('repeat-rings', { shape: 'spiral', windings: 3, advance: 2, later: 4 }),
            newStep('vary', { what: 'late', lateFrom: 0, lateTo: 80, behind: 4, scattered: 10, swings: 5 }),
          ],
        },
      ],
    };
    const [, stream, rings, varied] = lengthenLoop(p, 2).ribbons[0].steps.map((s) => s.values);
    // Twice as long: speeds per loop double, what falling adds in a loop to a speed per loop grows fourfold.
    expect(stream).toMatchObject({
      count: 200,
      life: 0.75,
      stays: 0.25,
      speed: 4,
      fall: 12,
      drag: 3,
      flow: 2,
      flowRate: 1,
    });
    expect(rings).toMatchObject({ windings: 3, advance: 4, later: 4 });
    expect(varied).toMatchObject({ lateTo: 40, behind: 2, scattered: 5, swings: 10 });
  });
  it('a particle is after as many frames where it was in the shorter loop', () => {
    const falling = (frames: number): Piece => ({
      ...newPiece('Fall'),
      loop: { frames, fps: 20 },
      ribbons: [
        {
          ...newRibbon('box', 0),
          steps: [
            newStep('box', { segments: 1 }),
            newStep('stream', {
              count: 1,
              from: 'point',
              cone: 0,
              speed: 2,
              speedSpread: 0,
              fall: 5,
              drag: 0.7,
              life: 0.9,
            }),
          ],
        },
      ],
    });
    const at = (p: Piece, frame: number) =>
      evaluateRibbon(p.ribbons[0], p.loop, frame, 'draft', new MeshCache()).mesh.copies!.matrices.slice(12, 15);
    const [short, long] = [falling(40), lengthenLoop(falling(40), 3)];
    for (const frame of [5, 17, 30]) at(short, frame).forEach((x, k) => expect(at(long, frame)[k]).toBeCloseTo(x, 5));
  });
  it('moves at the same speed: every wave has the value it had, frame by frame', () => {
    const [short, long] = [piece(), lengthenLoop(piece(), 3)];
    for (let f = 0; f < 120; f += 7) {
      const twist = (p: Piece) =>
        evaluateValues(stepKind('twist').params, p.ribbons[0].steps[2].values, { frame: f, frames: p.loop.frames })
          .angle as unknown as number;
      expect(twist(long)).toBeCloseTo(twist(short), 9);
    }
  });
  it('has rates per loop that grow with it, in steps and in motions, held to their limits', () => {
    const values = lengthenLoop(piece(), 2).ribbons[0].steps[1].values;
    expect(values.rate).toBe(3);
    expect(values.height).toMatchObject({ rate: 4, low: 0, high: 1, octaves: 1 });
    expect(lengthenLoop(piece(), 100).ribbons[0].steps[1].values.rate).toBe(64);
    expect((lengthenLoop(piece(), 2).scene.cameras[0].values.target as unknown as MotionDoc[])[1].turns).toBe(2);
  });
  it('leaves everything else alone, and is refused where it would be endless', () => {
    const [a, b] = [piece(), lengthenLoop(piece(), 1)];
    const named = (p: Piece) => JSON.parse(JSON.stringify(p.scene), (key, v) => (key === 'id' ? '' : v)) as unknown;
    expect({ ...b, scene: named(b) }).toEqual({ ...a, ribbons: b.ribbons, scene: named(a) });
    expect(() => lengthenLoop(piece(), 1000)).toThrow('cannot be made 1000 times as long');
    expect(() => lengthenLoop(piece(), 1.5)).toThrow(RangeError);
  });
  it('plays every kind of motion at the speed it had, frame by frame', () => {
    const step = (p: Piece) => p.ribbons[0].steps[2].values.angle as MotionDoc;
    let compared = 0;
    for (let seed = 0; seed < 150; seed++) {
      const angle = new Dice(seed + 9000).layered({
        soft: [-90, 90],
        min: -36_000,
        max: 36_000,
        integer: false,
        cyclic: 360,
      });
      // A wander of another rate takes another way.
      const text = JSON.stringify(angle);
      if (/wander|"way":"(there|sway)"/.test(text) || /"timing":\{[^}]*"rest":0\.\d*[1-9]/.test(text)) continue;
      const base = piece();
      const short: Piece = {
        ...base,
        ribbons: [
          {
            ...base.ribbons[0],
            steps: base.ribbons[0].steps.map((s, i) => (i === 2 ? { ...s, values: { ...s.values, angle } } : s)),
          },
        ],
      };
      const long = lengthenLoop(short, 3);
      expect(readPiece(writePiece(long)).ok).toBe(true);
      for (let f = 0; f < 120; f += 13) {
        const at = (p: Piece) => evaluateNumber(step(p), { frame: f, frames: p.loop.frames }, 360);
        // Angles that differ by whole turns are the same angle.
        expect(Math.abs(((((at(long) - at(short)) % 360) + 540) % 360) - 180), text).toBeLessThan(1e-5);
      }
      compared++;
    }
    expect(compared).toBeGreaterThan(40);
  });
  it('every value that is declared goes with the length of the loop as its unit says, numbers and vectors alike', () => {
    const kinds = [
      ...stepKinds.map((k) => ({ what: k.kind, params: k.params })),
      ...patterns.all.map((k) => ({ what: k.kind, params: k.params })),
      ...finishParts.all.map((k) => ({ what: k.kind, params: k.params })),
      ...sceneListNames.flatMap((list) => sceneLists[list].kinds.all.map((k) => ({ what: k.kind, params: k.params }))),
    ];
    let perLoop = 0;
    for (const { what, params } of kinds)
      for (const [name, p] of Object.entries(params)) {
        if (p.type !== 'number' && p.type !== 'vector') continue;
        // What the words beside a value say, its power says.
        const per =
          ['/loop', 'm/loop'].includes(p.unit) || /\b(per|in a) loop\b/i.test(p.help) ? 1 : p.unit === 'loops' ? -1 : 0;
        const exempt =
          `${what}.${name}` === 'stream.fall' ||
          (/share of the loop|looks closed|closes\.$/i.test(p.help) && p.moves) ||
          p.unit === '°' ||
          (p.type === 'number' && p.time);
        if (!exempt) expect(Math.sign(powerOf(p)), `${what}.${name}: ${p.help}`).toBe(per);
        if (powerOf(p) !== 0) perLoop++;
      }
    expect(perLoop).toBeGreaterThan(40);
    const steps = [newStep('box'), newStep('displace', { travel: [1, -2, 0] }), newStep('curve', { turns: 3 })];
    const minimal = newStep('minimal', { travels: [1, 0, 2] });
    const p: Piece = {
      ...newPiece(),
      ribbons: [
        { ...newRibbon('box', 0), steps },
        { ...newRibbon('minimal', 1), steps: [minimal] },
      ],
    };
    const [a, b] = lengthenLoop(p, 2).ribbons;
    expect(a.steps[1].values.travel).toEqual([2, -4, 0]);
    expect(b.steps[0].values.travels).toEqual([2, 0, 4]);
    // The turns of a coil are its form, and not of the loop.
    expect(a.steps[2].values.turns).toBe(3);
  });
  it('colours go round as often as before in the same time, and followers lag by as many frames', () => {
    const base = piece();
    const moved: Piece = {
      ...base,
      ribbons: [
        withFinish(base.ribbons[0], {
          colour: { motion: 'cycle', colour: '#d9483b', turns: 1, space: 'oklch' },
          roughness: {
            motion: 'follow',
            of: 'x',
            scale: 1,
            offset: 0,
            delay: 30,
            springy: true,
            swings: 2,
            damping: 30,
            otherwise: 40,
          },
        }),
      ],
    };
    expect(finishValues(lengthenLoop(moved, 4).ribbons[0])).toMatchObject({
      colour: { turns: 4 },
      roughness: { delay: 7.5, swings: 8 },
    });
  });
});
