import { describe, expect, it } from 'vitest';
import { isShown } from '../../declare/shown';
import { stepKind } from '../index';
import { carry } from '../../copies/carry';
import { centresOf, copyCount } from '../../copies/copies';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { form, step } from '../../fixtures/forms';
import { linkPiece } from '../../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc, type StepDoc } from '../../piece/piece';
import { judge } from '../../seam/check';
import { ribbonClosure, ribbonSteps, seamRatio } from '../../seam/measure';
import { proveSeam } from '../../seam/proof';
import type { Copies } from '../../shape/mesh';
import { chainAt, harmonicsOf, responseAt, swingOf } from '../../time/chain';
import { prepareNumber } from '../../time/value';
import { periodicResponse, springResponse } from '../../time/spring';

const frames = 60;
const wave = (low: number, high: number, turns = 1) =>
  ({ motion: 'wave', shape: 'sine', width: 50, low, high, turns, phase: 0, rest: 0 }) as never;
const small = newStep('box', { segments: 1, size: [0.1, 0.1, 0.1] });
const ribbon = (...steps: StepDoc[]): RibbonDoc => ({ ...newRibbon('box', 0), id: 'one', steps });
const piece = (r: RibbonDoc, ...others: RibbonDoc[]): Piece => ({
  ...newPiece(),
  loop: { frames, fps: 30 },
  ribbons: [r, ...others],
});
const at = (p: Piece, frame: number, cache = new MeshCache()) =>
  evaluateRibbon(linkPiece(p).ribbons[0], p.loop, frame, 'draft', cache);
const copiesOf = (p: Piece, frame: number): Copies => at(p, frame).mesh.copies!;
const line = (count: number, more: object = {}) =>
  newStep('repeat-line', { count, centred: false, way: [1, 0, 0], ...more } as never);
const xs = (c: Copies, axis = 0) => [...centresOf(c)].filter((_, i) => i % 3 === axis);

describe('copies along a path', () => {
  const circleLike = (over: object) => ({
    ...newRibbon('curve', 1),
    id: 'path',
    steps: [newStep('curve', over as never)],
  });
  it('are even by length: chords of an eight agree with independent quadrature of its arc', () => {
    // Gerono's lemniscate (R sin, d cos, R sin cos), its length by Simpson's rule in 20 000 parts.
    const [R, d, n] = [1.2, 0.4, 90];
    const speed = (u: number) => {
      const a = 2 * Math.PI * u;
      return 2 * Math.PI * Math.hypot(R * Math.cos(a), d * Math.sin(a), R * Math.cos(2 * a));
    };
    const parts = 20_000;
    let length = 0;
    for (let i = 0; i < parts; i++)
      length += (speed(i / parts) + 4 * speed((i + 0.5) / parts) + speed((i + 1) / parts)) / (6 * parts);
    const p = piece(
      ribbon(small, newStep('repeat-path', { other: 'path', count: n })),
      circleLike({ curve: 'eight', size: R, depth: d, points: 600 }),
    );
    const c = centresOf(copiesOf(p, 0));
    const u = (i: number) => Math.atan2(c[3 * i] / R, c[3 * i + 1] / d) / (2 * Math.PI);
    for (let i = 0; i < n; i++) {
      const [from, to] = [u(i), u((i + 1) % n)];
      const span = (to - from + 1) % 1;
      let arc = 0;
      for (let k = 0; k < 200; k++) arc += (span / 200) * speed(from + (span * (k + 0.5)) / 200);
      expect(arc / (length / n)).toBeCloseTo(1, 2);
    }
  });
  it('look along it, square to it, and a whole number of places later stand where others stood', () => {
    const p = piece(
      ribbon(small, newStep('repeat-path', { other: 'path', count: 12, advance: 1 })),
      circleLike({ curve: 'coil', points: 400 }),
    );
    const m = copiesOf(p, 0).matrices;
    for (let i = 0; i < 12; i++) {
      const axes = [0, 4, 8].map((k) => [...m.subarray(16 * i + k, 16 * i + k + 3)]);
      for (const [a, b] of [
        [0, 1],
        [0, 2],
        [1, 2],
      ])
        expect(axes[a].reduce((s, x, k) => s + x * axes[b][k], 0)).toBeCloseTo(0, 5);
    }
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('permuted');
  });
});

describe('copies at times of their own', () => {
  const moving = newStep('place', { shift: [0, wave(-1, 1), 0] });
  it('each play what comes before later by whole frames, and the source is made once a frame of the loop', () => {
    const p = piece(ribbon(small, moving, line(30, { later: 1 })));
    const cache = new MeshCache();
    const seen = new Set<unknown>();
    for (let f = 0; f < frames; f++) {
      const { copies } = at(p, f, cache).mesh;
      for (const s of copies!.sources) seen.add(s.positions);
      if (f === 10)
        for (let i = 0; i < 30; i++)
          expect(copies!.sources[copies!.source[i]].positions[1] + 0.05).toBeCloseTo(
            Math.sin((2 * Math.PI * (10 - i)) / frames),
            5,
          );
    }
    // Thirty copies, sixty frames: sixty shapes at the most, and a sine has most heights twice.
    expect(seen.size).toBeLessThanOrEqual(frames);
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('exact');
  });
  it('by chance, place or noise close, too; what stands still is one shape', () => {
    for (const by of ['chance', 'noise', 'place', 'order']) {
      const p = piece(
        ribbon(
          small,
          moving,
          line(20),
          newStep('vary', { what: 'late', by, axis: 'x', highAt: 19, lateTo: 70, rate: 0 }),
        ),
      );
      expect(ribbonClosure(p, p.ribbons[0], 'draft').how, by).toBe('exact');
      expect(copiesOf(p, 3).sources.length, by).toBeGreaterThan(3);
    }
    expect(copiesOf(piece(ribbon(small, line(20), newStep('vary', { what: 'late' }))), 3).sources).toHaveLength(1);
  });
  it('of copies of copies: a ring that turns, each place later, is late as a whole', () => {
    const p = piece(
      ribbon(small, newStep('repeat-rings', { count: 3, radius: 0.3, angle: wave(0, 90) }), line(4, { later: 15 })),
    );
    const c = copiesOf(p, 0);
    expect(copyCount(c)).toBe(12);
    const angle = (g: number) => Math.atan2(-c.matrices[16 * 3 * g + 14], c.matrices[16 * 3 * g + 12] - g);
    for (let g = 0; g < 4; g++)
      expect((angle(g) * 180) / Math.PI).toBeCloseTo(45 + 45 * Math.sin((2 * Math.PI * -15 * g) / frames), 3);
  });
  it('say so where copies cannot be told apart at other times', () => {
    const p = piece(
      ribbon(small, moving, newStep('stream', { count: 7, life: 0.5 }), newStep('vary', { what: 'late', lateTo: 50 })),
    );
    const { problems } = at(p, 3);
    // Seven a loop that live half of it are three or four at a time.
    expect(problems[0].message).toContain('number of copies changes');
  });
});

describe('vary', () => {
  const varied = (over: object, count = 11, more: object = {}) =>
    copiesOf(piece(ribbon(small, line(count, more), newStep('vary', over as never))), 0);
  const sizes = (c: Copies) =>
    Array.from({ length: copyCount(c) }, (_, i) => Math.hypot(...c.matrices.subarray(16 * i, 16 * i + 3)));
  it('by order runs from the first value to the last; there and back meets itself', () => {
    sizes(varied({ sizeFrom: 1, sizeTo: 2 })).forEach((s, i) => expect(s).toBeCloseTo(1 + i / 10, 5));
    sizes(varied({ sizeFrom: 1, sizeTo: 2, runs: 'back' }, 10)).forEach((s, i) =>
      expect(s).toBeCloseTo(1 + 2 * Math.min(i / 10, 1 - i / 10), 5),
    );
  });
  it('by chance lies between 0.1 and 0.8, evenly, and the same again', () => {
    const s = sizes(varied({ by: 'chance', sizeFrom: 0.1, sizeTo: 0.8 }, 2000));
    expect(Math.min(...s)).toBeGreaterThanOrEqual(0.1 - 1e-6);
    expect(Math.max(...s)).toBeLessThanOrEqual(0.8 + 1e-6);
    expect(s.reduce((a, b) => a + b) / 2000).toBeCloseTo(0.45, 1);
    expect(sizes(varied({ by: 'chance', sizeFrom: 0.1, sizeTo: 0.8 }, 2000))).toEqual(s);
    expect(sizes(varied({ by: 'chance', sizeFrom: 0.1, sizeTo: 0.8, seed: 2 }, 2000))).not.toEqual(s);
  });
  it('by place goes beyond both values unless it is asked to stay within', () => {
    const by = { by: 'place', axis: 'x', lowAt: 2, highAt: 4, sizeFrom: 1, sizeTo: 2 };
    expect(sizes(varied(by)).map((s) => Number(s.toFixed(4)))).toEqual([0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5]);
    expect(Math.max(...sizes(varied({ ...by, clamp: true })))).toBeCloseTo(2, 5);
  });
  it('only where a region is', () => {
    const s = sizes(varied({ by: 'same', sizeTo: 3, region: 'ball', regionAt: [5, 0, 0], regionSize: 1.5, soft: 0 }));
    expect(s.map((x) => Math.round(x))).toEqual([1, 1, 1, 1, 3, 3, 3, 1, 1, 1, 1]);
  });
  it('turns about the copy’s own x, then y, then z, against the Place step on the form itself', () => {
    const turn: [number, number, number] = [31, -47, 112];
    const c = varied({ what: 'turn', by: 'same', turnTo: turn }, 1);
    const there = step('place', form('box', { segments: 1, size: [0.1, 0.1, 0.1] }), { turn }).positions;
    const p = c.sources[0].positions;
    for (let v = 0; v < 8; v++)
      for (let r = 0; r < 3; r++)
        expect(
          c.matrices[r] * p[3 * v] + c.matrices[4 + r] * p[3 * v + 1] + c.matrices[8 + r] * p[3 * v + 2],
        ).toBeCloseTo(there[3 * v + r], 6);
  });
  it('shifts along own axes or those of the room', () => {
    const ring = newStep('repeat-rings', { count: 4, radius: 2 });
    const out = (own: boolean) =>
      centresOf(
        copiesOf(
          piece(ribbon(small, ring, newStep('vary', { what: 'shift', by: 'same', shiftTo: [1, 0, 0], own }))),
          0,
        ),
      );
    expect([...out(true)].map((x) => Math.round(x))).toEqual([3, 0, 0, 0, 0, -3, -3, 0, 0, 0, 0, 3].map((x) => x + 0));
    expect(out(false)[0]).toBeCloseTo(3, 5);
    expect(out(false)[3 * 2]).toBeCloseTo(-1, 5);
  });
  it('colours, looks and shares shown belong to each copy', () => {
    const c = varied({ what: 'colour', colourFrom: '#ff0000', colourTo: '#0000ff' });
    expect([...c.channels!.baseColor!.slice(0, 3)]).toEqual([1, 0, 0]);
    expect([...c.channels!.baseColor!.slice(30)]).toEqual([0, 0, 1]);
    expect(
      [...varied({ what: 'roughness', amountFrom: 20, amountTo: 60 }, 3).channels!.roughness!].map((x) =>
        Number(x.toFixed(2)),
      ),
    ).toEqual([0.2, 0.4, 0.6]);
    expect(copyCount(varied({ what: 'shown', by: 'chance', share: 30 }, 3000)) / 3000).toBeCloseTo(0.31, 1);
    expect(copyCount(varied({ what: 'shown', share: 100 }))).toBe(11);
  });
  it('colours travel along copies that follow later, come round with the loop, and may hang on springs', () => {
    const hue = { motion: 'cycle', colour: '#d9483b', turns: 1, space: 'oklch' };
    const chain = (over: object) =>
      piece(
        ribbon(
          small,
          newStep('repeat-line', { count: 6 }),
          newStep('vary', { what: 'colour', by: 'same', colourTo: hue as never, ...over }),
        ),
      );
    const tint = (p: Piece, frame: number, i: number) =>
      [...copiesOf(p, frame).channels!.baseColor!.slice(3 * i, 3 * i + 3)].map((x) => Math.round(255 * x));
    const late = chain({ behind: 10 });
    const N = late.loop.frames;
    // The third copy is at f what the first was a fifth of the loop earlier, up to the rounding of a colour.
    for (const f of [0, 7, 23])
      tint(late, f, 2).forEach((x, k) => expect(Math.abs(x - tint(late, f - 0.2 * N, 0)[k])).toBeLessThan(3));
    expect(tint(late, 5, 3)).not.toEqual(tint(late, 5, 0));
    expect(tint(late, N + 5, 3)).toEqual(tint(late, 5, 3));
    const sprung = chain({ springy: 'chain', swings: 4, damping: 80 });
    expect(tint(sprung, 5, 4)).not.toEqual(tint(sprung, 5, 0));
    expect(tint(sprung, N + 5, 4)).toEqual(tint(sprung, 5, 4));
  });
  it('rows are shown where they do something: no first value where all are alike', () => {
    const { params } = stepKind('vary');
    const shown = (by: string, what: string) =>
      Object.keys(params).filter((name) => /(From|To)$/.test(name) && isShown(params, { by, what }, name));
    expect(shown('same', 'turn')).toEqual(['turnTo']);
    expect(shown('order', 'turn')).toEqual(['turnFrom', 'turnTo']);
    expect(shown('same', 'colour')).toEqual(['colourTo']);
  });
  it('needs copies, and says so', () => {
    expect(() => step('vary', form('box'))).toThrow('put a step of Repeat before it');
  });
});

describe('followers', () => {
  const N = 60;
  const follower = (over: object) =>
    piece(
      ribbon(
        small,
        line(24),
        newStep('vary', { what: 'shift', by: 'same', own: false, shiftTo: [0, wave(-1, 1), 0], ...over }),
      ),
    );
  const heights = (p: Piece) => Array.from({ length: N }, (_, f) => xs(copiesOf(p, f), 1));
  it('with a delay do the same later: copy k at frame f is the first at f − k·delay', () => {
    const y = heights(follower({ behind: 5 }));
    for (const f of [0, 17, 59])
      y[f].forEach((h, k) => expect(h).toBeCloseTo(Math.sin(2 * Math.PI * (f / N - 0.05 * k)), 5));
  });
  it('share the springs of the Vary before them, which are set once; where none is before there are none', () => {
    const set = { springy: 'chain', swings: 2.5, damping: 40 };
    const first = newStep('vary', { what: 'size', by: 'same', sizeTo: wave(1, 2), ...set } as never);
    const own = newStep('vary', {
      what: 'shift',
      by: 'same',
      own: false,
      shiftTo: [0, wave(-1, 1), 0],
      ...set,
    } as never);
    const with_ = (...steps: StepDoc[]) => heights(piece(ribbon(small, line(24), ...steps)));
    const taken = { ...own, values: { ...own.values, springy: 'before', swings: 9, damping: 1 } };
    expect(with_(first, taken)).toEqual(with_(first, own));
    expect(with_(first, taken, { ...taken, id: 'again' })).toEqual(with_(first, own, { ...own, id: 'again' }));
    expect(with_(taken)).toEqual(with_({ ...own, values: { ...own.values, springy: 'no' } }));
    expect(with_({ ...first, on: false }, taken)).toEqual(with_(taken));
  });
  it('on a chain of springs have gain and lag of the frequency response to the power of their number', () => {
    const spring = { swings: 2.5, damping: 0.4 };
    const y = heights(follower({ springy: 'chain', swings: 2.5, damping: 40 }));
    const { gain, phase } = responseAt(spring, 1);
    for (const k of [0, 1, 5, 12]) {
      // Amplitude and phase by projection on sine and cosine.
      const [s, c] = [0, 1].map(
        (q) =>
          (2 / N) *
          y.reduce(
            (sum, row, f) => sum + row[k] * (q ? Math.cos((2 * Math.PI * f) / N) : Math.sin((2 * Math.PI * f) / N)),
            0,
          ),
      );
      expect(Math.hypot(s, c)).toBeCloseTo(gain ** k, 3);
      expect(Math.atan2(c, s)).toBeCloseTo(Math.atan2(Math.sin(k * phase), Math.cos(k * phase)), 3);
    }
    // Den Hartog's formula for 1/√((1 − r²)² + (2ζr)²) at r = 0.4, ζ = 0.4, worked by hand: 0.84² + 0.32² = 0.808.
    expect(gain).toBeCloseTo(1 / Math.sqrt(0.808), 9);
  });
  it('on a chain that swings farther with every link say so before it leaves all bounds; from 71 % on none does', () => {
    const chain = (damping: number, count: number) =>
      evaluateRibbon(
        ribbon(
          small,
          line(count),
          newStep('vary', {
            what: 'shift',
            by: 'same',
            own: false,
            shiftTo: [0, wave(-1, 1), 0],
            springy: 'chain',
            swings: 1,
            damping,
          } as never),
        ),
        { frames: N, fps: 30 },
        7,
        'draft',
        new MeshCache(),
      );
    expect(chain(20, 400).problems[0].message).toContain(
      'Damping of 20 % each copy swings farther than the one before, and the last of 400',
    );
    expect(chain(20, 400).mesh.copies!.source).toHaveLength(400);
    for (const [damping, count] of [
      [20, 10],
      [71, 400],
    ]) {
      const { problems, mesh } = chain(damping, count);
      expect(problems).toEqual([]);
      expect(Math.max(...mesh.copies!.matrices)).toBeLessThan(1e5);
    }
    // An undamped resonance at its own pace: gain 1/(2ζ) a link (Den Hartog).
    const waves = harmonicsOf(Float64Array.from({ length: 64 }, (_, i) => Math.cos((2 * Math.PI * i) / 64)));
    expect(swingOf(waves, { swings: 1, damping: 0.2 }, 10)).toBeCloseTo(2.5 ** 10, 3);
  });
  it('all on one spring agree with the spring solved piece by piece in closed form', () => {
    const motion = {
      motion: 'wave',
      shape: 'triangle',
      width: 50,
      low: 0,
      high: 2,
      turns: 2,
      phase: 0.1,
      rest: 0,
    } as never;
    const solved = springResponse(prepareNumber(motion, N), { swings: 3, damping: 0.3 }, N);
    const y = heights(
      piece(
        ribbon(
          small,
          line(3),
          newStep('vary', {
            what: 'shift',
            by: 'same',
            own: false,
            shiftTo: [0, motion, 0],
            springy: 'all',
            swings: 3,
            damping: 30,
          }),
        ),
      ),
    );
    for (let f = 0; f < N; f++) expect(y[f][1]).toBeCloseTo(solved.base({ frame: f, frames: N }), 3);
  });
  it('of a whole turn lag behind it by a constant angle, 2ζ/ω₀ for each spring', () => {
    const turn = { motion: 'keys', keys: [{ at: 0, value: 0, to: 'linear' }], adds: 360 } as never;
    const p = piece(
      ribbon(
        small,
        line(4),
        newStep('vary', { what: 'turn', by: 'same', turnTo: [0, 0, turn], springy: 'chain', swings: 4, damping: 50 }),
      ),
    );
    const angle = (k: number) =>
      Math.atan2(copiesOf(p, 0).matrices[16 * k + 1], copiesOf(p, 0).matrices[16 * k]) * (180 / Math.PI);
    for (let k = 0; k < 4; k++) expect(angle(k)).toBeCloseTo((-360 * k * 2 * 0.5) / (2 * Math.PI * 4), 2);
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('exact');
  });
  it('later by chance keep the pace of all: none drifts off over ten loops', () => {
    const p = follower({ scattered: 80 });
    expect(xs(copiesOf(p, 0), 1)).toEqual(xs(copiesOf(p, 10 * N), 1));
    expect(new Set(xs(copiesOf(p, 0), 1).map((x) => x.toFixed(3))).size).toBeGreaterThan(15);
  });
  it('harmonics put back together are the course they were taken from', () => {
    const samples = Float64Array.from({ length: 64 }, (_, i) => Math.exp(Math.sin((2 * Math.PI * i) / 64)));
    const waves = harmonicsOf(samples);
    for (const i of [0, 9, 40]) expect(chainAt(waves, { swings: 1, damping: 1 }, 0, i / 64)).toBeCloseTo(samples[i], 5);
  });
});

describe('swing', () => {
  it('leans by the response of a pendulum to the way it is hung', () => {
    const p = piece(
      ribbon(
        small,
        line(3),
        newStep('place', { shift: [wave(-0.5, 0.5), 0, 0] }),
        newStep('swing', { swings: 2.5, damping: 40, length: 1 }),
      ),
    );
    const { gain, phase } = responseAt({ swings: 2.5, damping: 0.4 }, 1);
    for (const f of [0, 13, 40]) {
      const m = copiesOf(p, f).matrices;
      const t = (2 * Math.PI * f) / frames;
      const offset = 0.5 * gain * Math.sin(t + phase) - 0.5 * Math.sin(t);
      // Its own downward axis points to the weight.
      expect(Math.atan2(-m[4], m[5])).toBeCloseTo(Math.atan2(offset, 1), 2);
    }
    expect(ribbonClosure(p, p.ribbons[0], 'draft').how).toBe('exact');
  });
  it('does nothing where nothing moves', () => {
    const m = copiesOf(piece(ribbon(small, line(3), newStep('swing'))), 5).matrices;
    expect([...m.slice(0, 3)]).toEqual([1, 0, 0]);
  });
  it('a spring solved frame by frame closes and has the gain it should have', () => {
    const drive = Float64Array.from({ length: 200 }, (_, i) => Math.cos((2 * Math.PI * i) / 200));
    const x = periodicResponse(drive, 1 / 200, { swings: 3, damping: 0.2 });
    expect(Math.max(...x)).toBeCloseTo(responseAt({ swings: 3, damping: 0.2 }, 1).gain, 3);
  });
});

describe('steps after a repeat', () => {
  it('bend the whole line: copies stay bodies, on the arc, turned with it', () => {
    const p = (copies?: 'whole' | 'each' | 'one') =>
      piece(
        ribbon(small, newStep('repeat-line', { count: 9, way: [0, 0.5, 0] }), {
          ...newStep('bend', { angle: 90, along: 'y' }),
          ...(copies ? { copies } : {}),
        }),
      );
    const c = copiesOf(p(), 0);
    expect(c.sources).toHaveLength(1);
    const centres = centresOf(c);
    const radius = 4 / (Math.PI / 2);
    const lean = (i: number) => Math.atan2(c.matrices[16 * i + 6], c.matrices[16 * i + 5]);
    // From end to end the copies turn by the angle of the bend.
    expect(Math.abs(lean(8) - lean(0)) * (180 / Math.PI)).toBeCloseTo(90, 0);
    for (let i = 0; i + 1 < 9; i++)
      expect(Math.hypot(...[0, 1, 2].map((k) => centres[3 * i + 3 + k] - centres[3 * i + k]))).toBeCloseTo(
        2 * radius * Math.sin(Math.PI / 4 / 8),
        2,
      );
    expect(copiesOf(p('each'), 0).matrices).toEqual(
      copiesOf(piece(ribbon(small, newStep('repeat-line', { count: 9, way: [0, 0.5, 0] }))), 0).matrices,
    );
    expect(at(p('one'), 0).mesh.copies).toBeUndefined();
    expect(at(p('one'), 0).mesh.connectivity.vertexCount).toBe(72);
  });
  it('that make new points cannot move copies whole, and say what to do', () => {
    const ring = step('repeat-rings', form('box', { segments: 1 }), { count: 3 });
    expect(() => carry(ring, (m) => ({ ...m, positions: m.positions.slice(0, 9) }), 'turn')).toThrow(
      'let it work on each copy',
    );
  });
  it('links join copies where they stand, a thread leads through them in order', () => {
    const p = (...more: StepDoc[]) =>
      at(piece(ribbon(small, newStep('repeat-grid', { columns: 4, rows: 1, spacing: [0.5, 1, 1] }), ...more)), 0).mesh;
    expect(p(newStep('links', { radius: 0.6, rod: 0 })).connectivity.curves!.closed).toHaveLength(3);
    expect(p(newStep('links', { radius: 0.6, rod: 0.01, keep: true })).copies!.sources).toHaveLength(2);
    const thread = p(newStep('thread')).connectivity.curves!;
    expect([...thread.points]).toEqual([0, 1, 2, 3]);
    expect(p(newStep('thread'), newStep('wires')).connectivity.corners.length).toBeGreaterThan(100);
  });
});

describe('copies at the seam', () => {
  const p = (advance: number, more: object = {}) =>
    piece(ribbon(small, newStep('repeat-rings', { count: 8, advance, ...more })));
  it('a ring that moves on by one place is closed, its parts in each other’s places; by half a place it is not', () => {
    expect(ribbonClosure(p(1), p(1).ribbons[0], 'draft').how).toBe('permuted');
    expect(ribbonClosure(p(0.5), p(0.5).ribbons[0], 'draft').how).toBe('open');
    const verdict = judge(proveSeam(p(0.5)), [
      { id: 'one', name: 'One', closure: ribbonClosure(p(0.5), p(0.5).ribbons[0], 'draft') },
    ]);
    expect(verdict.closed).toBe(false);
    expect(verdict.findings[0].repairs.map((r) => r.words)).toContain('1 turn');
  });
  it('copies that change places with their colours are closed; that leave their colours behind are not', () => {
    const coloured = (by: string) =>
      piece(ribbon(small, newStep('repeat-rings', { count: 8, advance: 1 }), newStep('vary', { what: 'colour', by })));
    // By order the colour belongs to the place; by chance it belongs to the copy, which has gone on.
    expect(ribbonClosure(coloured('order'), coloured('order').ribbons[0], 'draft').how).toBe('permuted');
    expect(ribbonClosure(coloured('chance'), coloured('chance').ribbons[0], 'draft').how).toBe('open');
  });
  it('the step across the seam is as large as its neighbours, though copies jump in the list', async () => {
    const sizes = (await ribbonSteps(p(1), p(1).ribbons[0], 'draft'))!;
    expect(seamRatio(sizes)).toBeCloseTo(1, 1);
  });
});
