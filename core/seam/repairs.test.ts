import { describe, expect, it } from 'vitest';
import type { StoredValue } from '../declare/params';
import { Dice } from '../fixtures/dice';
import { addressKey, numbersOf, setValue, valuesOf } from '../piece/addresses';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import type { MotionDoc } from '../time/motion';
import { derivativeOf, evaluateNumber } from '../time/value';
import { asKeys, motionActions } from './actions';
import { checkSeam, judge, summarise } from './check';
import { applyRepair, type Finding } from './finding';
import { proveSeam } from './proof';
import { ribbonClosure } from './measure';
import { symmetryRepairs } from './symmetry';

const key = (at: number, value: number, to = 'linear') => ({ at, value, to });
const spinning = (
  angle: StoredValue,
  values: Record<string, StoredValue> = {},
  form = 'box',
  formValues: Record<string, StoredValue> = {},
): Piece => ({
  ...newPiece('Spin'),
  loop: { frames: 60, fps: 30 },
  ribbons: [
    {
      ...newRibbon(form, 0, 'Vane'),
      id: 'vane',
      steps: [newStep(form, formValues, 'form'), newStep('spin', { turns: 0, angle, ...values }, 'spin')],
    },
  ],
});
const findings = (p: Piece) => proveSeam(p).findings;
const repairs = (f: Finding) => f.repairs.map((r) => r.words);

describe('findings', () => {
  it('a spin keyed unevenly closes in place but not in speed', () => {
    const [f] = findings(spinning({ motion: 'keys', adds: 360, keys: [key(0, 0), key(0.5, 90)] }));
    expect(f).toMatchObject({ kind: 'speed', title: 'Spin angle', miss: 0 });
    expect(f.words).toBe('Meets itself in place, but arrives at 9 ° a frame and leaves at 3.');
    expect(repairs(f)).toEqual(['Even speed', 'Smooth', 'Keep the change']);
    expect(proveSeam(spinning({ motion: 'keys', adds: 360, keys: [key(0, 0), key(0.5, 90)] })).closed).toBe(true);
  });
  it('the most frequent mistake: 0 to 360 eased slows to rest at the seam', () => {
    const [f] = findings(
      spinning({ motion: 'keys', adds: 360, keys: [{ ...key(0, 0, 'ease'), ease: [0.5, 0.5] } as never] }),
    );
    expect(f).toMatchObject({ kind: 'pause' });
    expect(f.words).toMatch(/slows to rest at the seam: 0 → \d+(\.\d+)? ° a frame/);
    expect(repairs(f)).toEqual(['Even speed', 'Keep the pause']);
  });
  it('an even turn, a wave with corners of its own and a closed wander are nothing to speak of', () => {
    expect(findings(spinning({ motion: 'keys', adds: 360, keys: [key(0, 10)] }))).toEqual([]);
    expect(findings(spinning({ motion: 'wave', shape: 'triangle', low: 0, high: 90, turns: 1, phase: 0.25 }))).toEqual(
      [],
    );
    expect(findings(spinning({ motion: 'wander', low: 0, high: 90, rate: 3, octaves: 2, seed: 4 }))).toEqual([]);
  });
  it('a gain that is no whole turn is a gap the shorter way round, with its true period', () => {
    const proof = proveSeam(
      spinning({ motion: 'keys', adds: 270, keys: [key(0, 0), key(0.5, 135)] }, {}, 'box', { size: [2, 1, 1] }),
    );
    expect(proof).toMatchObject({ closed: false, truePeriod: 240 });
    expect(proof.findings[0]).toMatchObject({ kind: 'gap', miss: 90, unit: '°' });
    expect(repairs(proof.findings[0])).toEqual([
      'Adds 1 turn',
      'Stretch to 1 turn',
      'Adds nothing',
      'There and back',
      'Loop of 240 frames',
    ]);
  });
  it('true periods, worked out by hand', () => {
    const period = (angle: StoredValue, turns = 0) => proveSeam(spinning(angle, { turns })).truePeriod;
    const wave = (turns: number) => ({ motion: 'wave', shape: 'sine', low: 0, high: 9, turns, phase: 0 });
    expect(period(wave(1.5))).toBe(120);
    expect(period(wave(1 / 3), 0.5)).toBe(360);
    expect(period({ motion: 'keys', adds: 100, keys: [key(0, 0)] })).toBe(60 * 18);
    expect(period({ motion: 'formula', text: 'sin(pi*t/2) + cos(2*pi*t/3)', otherwise: 0 })).toBe(720);
    expect(period({ motion: 'formula', text: 't^2', otherwise: 0 })).toBeNull();
  });
  it('turns that are counted must be whole', () => {
    const [f] = findings(spinning(0, { turns: 2.5 }));
    expect(f).toMatchObject({ kind: 'gap', title: 'Spin turns' });
    expect(repairs(f)).toEqual(['2 turns', '3 turns', 'Loop of 120 frames']);
  });
  it('a body that tumbles away, a follower of nothing, one in a circle', () => {
    const p: Piece = {
      ...newPiece('T'),
      ribbons: [{ ...newRibbon('box', 0, 'Die'), steps: [newStep('box'), newStep('tumble', { bodies: 1 })] }],
    };
    expect(repairs(findings(p)[0])).toEqual(['A row of five', 'On the spot', 'There and back']);
    const [lost] = findings(
      spinning({
        motion: 'follow',
        of: 'no/such/value',
        scale: 1,
        offset: 0,
        delay: 0,
        springy: false,
        swings: 3,
        damping: 30,
        otherwise: 12,
      }),
    );
    expect(lost).toMatchObject({
      kind: 'lost',
      words: 'It follows a value that is no longer there. It stands at 12 °.',
    });
    const [circle] = findings(
      spinning({
        motion: 'follow',
        of: 'vane/spin/angle',
        scale: 1,
        offset: 0,
        delay: 0,
        springy: false,
        swings: 3,
        damping: 30,
        otherwise: 12,
      }),
    );
    expect(circle.words).toContain('It follows itself: Vane, Spin angle → Vane, Spin angle');
  });
  it('of several, the most visible comes first', () => {
    const wave = (high: number) => ({ motion: 'wave', shape: 'saw', low: 0, high, turns: 0.5, phase: 0 });
    let p = spinning(wave(300));
    p = setValue(p, { owner: { type: 'step', ribbon: 'vane', item: 'spin' }, param: 'through', axis: 0 }, wave(0.1));
    expect(findings(p).map((f) => f.title)).toEqual(['Spin angle', 'Spin through x']);
  });
});

describe('every repair', () => {
  /** Pieces with one value broken in some way, from motions drawn at random. */
  const broken = Array.from({ length: 160 }, (_, seed) => {
    const dice = new Dice(seed + 400);
    const motion = dice.layered({
      soft: [-180, 180],
      min: -36_000,
      max: 36_000,
      integer: false,
      cyclic: 360,
    }) as MotionDoc & Record<string, never>;
    const wrong: Record<string, unknown> =
      motion.motion === 'wave'
        ? { turns: (motion.turns as number) + dice.of([0.5, 0.25, 1 / 3]), rest: 0 }
        : typeof motion.adds === 'number'
          ? {
              adds: (motion.adds as number) + dice.of([90, 100, -45.5]),
              ...(motion.motion === 'stairs' ? { returns: 'on' } : {}),
            }
          : motion.motion === 'formula'
            ? { text: `${motion.text} + ${dice.of(['100*t', 'sin(3*pi*t)', 't^2', '20*t*sin(2*pi*t)'])}` }
            : {};
    return spinning({ ...motion, ...wrong } as StoredValue);
  });
  it('that is offered makes its finding vanish, and what it makes is a sound document', () => {
    let tried = 0;
    const kinds = new Set<string>();
    for (const p of broken)
      for (const f of findings(p)) {
        expect(f.repairs.length, f.words).toBeGreaterThan(0);
        for (const r of f.repairs) {
          const after = applyRepair(p, r);
          expect(
            findings(after).filter((g) => g.key === f.key && g.kind === f.kind),
            `${f.kind} ${r.words} ${JSON.stringify(numbersOf(p).find((n) => addressKey(n.address) === f.key)?.value)}`,
          ).toEqual([]);
          const read = readPiece(writePiece(after));
          if (!read.ok) throw new Error(`${r.words}: ${read.message}`);
          kinds.add(r.words.replace(/-?[\d.]+/g, '#'));
          tried++;
        }
      }
    expect(tried).toBeGreaterThan(300);
    expect(kinds.size).toBeGreaterThan(12);
  });
  it('even speed passes the same values at one speed', () => {
    const uneven: MotionDoc = { motion: 'keys', adds: 360, keys: [key(0.2, 0), key(0.3, 200), key(0.9, 250)] };
    const even = motionActions
      .find((a) => a.id === 'even')!
      .apply(uneven, { param: {} as never, frames: 60, frame: 0 })!;
    for (let f = -60; f < 120; f += 7) expect(derivativeOf(even, { frame: f, frames: 60 })).toBeCloseTo(6, 9);
    expect(evaluateNumber(even, { frame: 12, frames: 60 })).toBeCloseTo(0, 9);
  });
});

describe('actions on a whole motion', () => {
  const param = numbersOf(spinning(0)).find((n) => n.title === 'Spin angle')!.param;
  const act = (id: string, m: MotionDoc, frame = 0) =>
    motionActions.find((a) => a.id === id)!.apply(m, { param, frames: 60, frame });
  const keys: MotionDoc = {
    motion: 'keys',
    adds: 360,
    keys: [key(0.1, 0, 'ease'), key(0.5, 100), key(0.8, 90, 'smooth')],
  };
  const at = (m: MotionDoc, f: number) => evaluateNumber(m, { frame: f, frames: 60 });
  it('reverse runs it backwards', () => {
    const back = act('reverse', keys)!;
    for (let f = -30; f < 90; f += 3.5) expect(at(back, f)).toBeCloseTo(at(keys, -f), 6);
    expect(act('reverse', { motion: 'wave', low: 0, high: 1, turns: 1 } as MotionDoc)!.timing).toEqual({ way: 'back' });
  });
  it('begin here brings the playhead to the seam', () => {
    const shifted = act('from-here', keys, 20)!;
    for (let f = 0; f < 60; f += 4) expect(at(shifted, f)).toBeCloseTo(at(keys, f + 20), 6);
    const wave: MotionDoc = { motion: 'wave', shape: 'sine', width: 50, low: 0, high: 1, turns: 1, phase: 0, rest: 0 };
    expect(at(act('from-here', wave, 15)!, 0)).toBeCloseTo(at(wave, 15), 9);
  });
  it('there and back, rest, fit, close: each closes, none is offered where it would change nothing', () => {
    expect(act('there', { ...keys, timing: { way: 'there' } })).toBeNull();
    expect(act('rest', keys)!.timing).toEqual({ rest: 0.12 });
    expect(act('fit', { ...keys, adds: 300 })!.adds).toBe(360);
    expect(act('fit', keys)).toBeNull();
    expect(act('close', keys)).toBeNull();
    expect(act('close', { ...keys, adds: 300 })!.adds).toBe(360);
  });
  it('any motion can be made into keys that go through its values', () => {
    const wander: MotionDoc = { motion: 'wander', low: -10, high: 10, rate: 2, octaves: 1, seed: 3 };
    const made = asKeys(wander, 20, 60);
    for (let f = 0; f < 60; f += 3) expect(at(made, f)).toBeCloseTo(at(wander, f), 6);
  });
});

describe('closed to the eye', () => {
  it('a cube turned by a quarter counts as closed with its parts permuted, and is reported so', async () => {
    const report = await checkSeam(spinning(0, { turns: 1, symmetry: 4 }));
    expect(report.closed).toBe(true);
    expect(report.ribbons[0].closure.how).toBe('permuted');
    expect(summarise(report)).toContain('frame 60 looks like frame 0, with the parts of Vane in each other’s places.');
  });
  it('one and a half turns of a box close to the eye, and the step across the seam says so, too', async () => {
    const report = await checkSeam(spinning(0, { turns: 1.5 }, 'box', { size: [1, 2, 1] }));
    expect(report.ribbons[0].closure.how).toBe('permuted');
    expect(report.ribbons[0].seamRatio).toBeCloseTo(1, 1);
    // An eighth more does not.
    const open = await checkSeam(spinning(0, { turns: 1.125 }, 'box', { size: [1, 2, 1] }));
    // The chart marks what is beyond 1.5.
    expect(open.ribbons[0].seamRatio).toBeGreaterThan(1.5);
  });
  it('a gap of the angle is overruled by the shape', () => {
    const p = spinning({ motion: 'keys', adds: 90, keys: [key(0, 0)] });
    const verdict = judge(proveSeam(p), [
      { id: 'vane', name: 'Vane', closure: ribbonClosure(p, p.ribbons[0], 'draft') },
    ]);
    expect(verdict).toMatchObject({ closed: true, gaps: 0 });
    expect(verdict.findings[0].closedToTheEye).toBe(true);
  });
  it('finds the symmetry of the form and offers the part of a turn that closes', () => {
    const p = spinning(0, { turns: 0.3 });
    const [r] = symmetryRepairs(p, findings(p)[0], 'draft');
    expect(r.words).toBe('A quarter turn already closes');
    const after = applyRepair(p, r);
    expect(after.ribbons[0].steps[1].values).toMatchObject({ turns: 1, symmetry: 4 });
    expect(ribbonClosure(after, after.ribbons[0], 'draft').how).toBe('permuted');
    expect(
      symmetryRepairs(spinning(0, { turns: 0.3 }, 'box', { size: [1, 2, 3] }), findings(p)[0], 'draft')[0].words,
    ).toBe('A half turn already closes');
  });
  it('says how many parts of a turn it sets', () => {
    const p = spinning(0, { turns: 1.3 });
    const [r] = symmetryRepairs(p, findings(p)[0], 'draft');
    expect(r.words).toBe('5 × a quarter turn closes');
    expect(applyRepair(p, r).ribbons[0].steps[1].values).toMatchObject({ turns: 5, symmetry: 4 });
  });
  it('random pieces: proof and the measured values agree', () => {
    for (let seed = 1; seed < 40; seed++) {
      const p = new Dice(seed * 31).piece();
      const open = new Set(
        findings(p)
          .filter((f) => f.kind === 'gap')
          .map((f) => f.key),
      );
      for (const v of valuesOf(p)) expect(open.has(addressKey(v.address))).toBe(false);
    }
  });
});
