import { addressKey, setValue, type Address } from '@maypole/core/piece/addresses';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { proveSeam } from '@maypole/core/seam/proof';
import type { MotionDoc } from '@maypole/core/time/motion';
import { describe, expect, it } from 'vitest';
import { NOT_MEASURED, type SeamMeasure } from '@/engine/evaluate/seam-watch';
import { movingOf, verdictOf, whatCloses } from './derived';
import { showValue, toggleLane } from './show-value';
import { useEditor } from './store';

const wave: MotionDoc = { motion: 'wave', shape: 'sine', width: 50, low: 0, high: 9, turns: 1, phase: 0, rest: 0 };
const angle: Address = { owner: { type: 'step', ribbon: 'a', item: 't' }, param: 'angle' };
const plain: Piece = {
  ...newPiece('D'),
  ribbons: [{ ...newRibbon('box', 0), id: 'a', steps: [newStep('box', {}, 'b'), newStep('twist', {}, 't')] }],
};
const colour: Address = {
  owner: { type: 'part', ribbon: 'a', item: plain.ribbons[0].finishes[0].parts[0].id },
  param: 'colour',
};
const azimuth: Address = { owner: { type: 'scene', item: plain.scene.cameras[0].id }, param: 'azimuth' };
const moving = [angle, azimuth].reduce(
  (p, a) => setValue(p, a, wave),
  setValue(plain, colour, { motion: 'cycle', colour: '#d9483b', turns: 1, space: 'oklch' }),
);

describe('moving values', () => {
  it('are numbers and colours in the order of the screen, ready to be evaluated', () => {
    expect(movingOf(plain)).toEqual([]);
    expect(movingOf(moving).map((m) => m.title)).toEqual(['Twist angle', 'Finish colour', 'Camera round']);
    const following = setValue(moving, azimuth, {
      motion: 'follow',
      of: addressKey(angle),
      scale: 1,
      offset: 0,
      delay: 0,
      springy: false,
      swings: 3,
      damping: 30,
      otherwise: 0,
    });
    expect(movingOf(following)[2].value).toMatchObject({ motion: 'follow', source: wave });
  });
  it('are the very same list while an edit elsewhere leaves them alone, and the same entries otherwise', () => {
    const fresh = { ...moving };
    const first = movingOf(fresh);
    expect(movingOf({ ...fresh, name: 'Other' })).toBe(first);
    const edited = movingOf(setValue(fresh, azimuth, { ...wave, high: 5 }));
    expect(edited).not.toBe(first);
    expect(edited[0]).toBe(first[0]);
    expect(edited[2]).not.toBe(first[2]);
  });
});

describe('what closes', () => {
  const spun = (piece: Piece, turns: number): Piece => ({
    ...piece,
    ribbons: piece.ribbons.map((r) => ({ ...r, steps: [...r.steps, newStep('spin', { turns }, `spin${turns}`)] })),
  });
  const told = (piece: Piece) => whatCloses(piece, proveSeam(piece).findings);
  it('is counted in words: values with a motion, and what moves by itself', () => {
    expect(told(plain)).toBe('Nothing moves.');
    expect(told(moving)).toBe('3 moving values close exactly.');
    expect(told(spun(plain, 1))).toBe('1 thing that moves by itself closes.');
    expect(told(spun(spun(plain, 1), 2))).toBe('2 things that move by themselves close.');
    expect(told(spun(moving, 1))).toBe('3 moving values close exactly, and 1 thing that moves by itself closes, too.');
  });
  it('leaves out what was found not to', () => {
    const gap = setValue(plain, angle, { ...wave, shape: 'saw', turns: 1.5 });
    expect(told(gap)).toBe('Nothing else moves.');
    expect(told(spun(gap, 1))).toBe('1 other thing that moves by itself closes.');
    expect(told(setValue(gap, azimuth, wave))).toBe('1 other moving value closes exactly.');
    // Half a turn of a spin is its own gap: nothing is said to close that does not.
    const half = spun(plain, 0.5);
    expect(proveSeam(half).closed).toBe(false);
    expect(told(half)).toBe('Nothing else moves.');
    expect(told(spun(half, 1))).toBe('1 other thing that moves by itself closes.');
    expect(told(spun(moving, 0.5))).toBe('3 other moving values close exactly.');
  });
});

describe('the verdict', () => {
  const measured = (piece: Piece, how: 'exact' | 'open', more: Partial<SeamMeasure> = {}): SeamMeasure => ({
    ...NOT_MEASURED,
    state: 'shapes',
    proof: proveSeam(piece),
    ribbons: [
      { id: 'a', name: 'A', closure: { how, byPoint: { largest: how === 'open' ? 1 : 0, rms: 0, by: 'vertex' } } },
    ],
    ...more,
  });
  it('counts gaps of values, and shapes that are open without one', () => {
    const broken = setValue(moving, angle, { ...wave, turns: 1.5 });
    expect(verdictOf(measured(moving, 'exact'))).toMatchObject({ closed: true, gaps: 0, open: [] });
    expect(verdictOf(measured(broken, 'open'))).toMatchObject({ closed: false, gaps: 1, open: ['a'] });
    expect(verdictOf(measured(moving, 'open'))).toMatchObject({ closed: false, gaps: 0, open: ['a'] });
    expect(verdictOf(NOT_MEASURED)).toMatchObject({ gaps: 0, findings: [] });
  });
  it('a gap in a step whose shape closes is closed to the eye; one of the camera stays a gap', () => {
    const broken = [angle, azimuth].reduce((p, a) => setValue(p, a, { ...wave, turns: 1.5, shape: 'saw' }), moving);
    const verdict = verdictOf(measured(broken, 'exact'));
    expect(verdict.gaps).toBe(1);
    expect(verdict.findings.map((f) => [f.title, Boolean(f.closedToTheEye)])).toEqual(
      expect.arrayContaining([
        ['Twist angle', true],
        ['Camera round', false],
      ]),
    );
  });
  it('puts repairs by symmetry before the others', () => {
    const broken = setValue(moving, angle, { ...wave, turns: 1.5 });
    const verdict = verdictOf(
      measured(broken, 'open', { symmetry: { [addressKey(angle)]: [{ words: 'A quarter turn already closes' }] } }),
    );
    expect(verdict.findings[0].repairs[0].words).toBe('A quarter turn already closes');
    expect(verdict.findings[0].repairs.length).toBeGreaterThan(2);
  });
});

describe('showing a value', () => {
  it('opens its ribbon, its step and its motion; one of the scene opens the drawer', () => {
    useEditor.getState().open('x', moving, 1);
    useEditor.setState({ ribbonId: null, openSteps: {}, alsoRibbons: ['zzz'] });
    showValue(angle);
    expect(useEditor.getState()).toMatchObject({
      ribbonId: 'a',
      motionOf: angle,
      openSteps: { t: true },
      alsoRibbons: [],
    });
    showValue(colour);
    expect(useEditor.getState().openSteps).toMatchObject({ 'a/finish': true });
    showValue(azimuth);
    expect(useEditor.getState()).toMatchObject({ drawer: 'scene', motionOf: azimuth });
  });
  it('one lane is open at a time; a second click closes it', () => {
    toggleLane(angle);
    expect(useEditor.getState().openLane).toBe('a/t/angle');
    toggleLane(azimuth);
    expect(useEditor.getState().openLane).toBe(`scene/${plain.scene.cameras[0].id}/azimuth`);
    toggleLane(azimuth);
    expect(useEditor.getState().openLane).toBeNull();
  });
});
