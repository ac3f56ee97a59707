import { describe, expect, it } from 'vitest';
import { newItem, newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { sceneLists } from '../scene/index';
import { Dice } from '../fixtures/dice';
import { dressed } from '../fixtures/dress';
import { rounds } from '../fixtures/effort';
import { changesBetween } from '../piece/paths';
import { readPiece, writePiece } from '../piece/read';
import { withRibbonOf } from './bring-back';
import { broughtBack, differences } from './differences';
import { variablesOf } from './variables';
import { variation } from './variation';

const piece = (steps: readonly ReturnType<typeof newStep>[]): Piece => {
  const [a, b] = [newRibbon('box', 0, 'One'), newRibbon('torus', 1, 'Two')];
  return {
    ...newPiece('P'),
    ribbons: [
      { ...a, id: 'one', steps },
      { ...b, id: 'two' },
    ],
  };
};
const old = piece([newStep('box', {}, 'a'), newStep('twist', { angle: 40, axis: 'x' }, 'b')]);
const [one, two] = old.ribbons;
const now: Piece = {
  ...old,
  ribbons: [
    { ...one, steps: [one.steps[0], { ...one.steps[1], values: { ...one.steps[1].values, angle: 90, axis: 'z' } }] },
    two,
  ],
};

describe('bringing back', () => {
  const back = (from: Piece, what: string) =>
    broughtBack(
      from,
      old,
      differences(from, old).find((d) => d.what === what)!,
    );

  it('of one value leaves all others as they are', () => {
    const one = back(now, 'Twist angle');
    expect(one.ribbons[0].steps[1].values).toEqual({ ...now.ribbons[0].steps[1].values, angle: 40 });
    expect(one.ribbons[1]).toBe(two);
    expect(differences(old, now).map((d) => d.param)).toEqual(['angle', 'axis']);
    expect(differences(old, one).map((d) => d.param)).toEqual(['axis']);
  });
  it('of a step puts it behind the one it followed', () => {
    const steps = [newStep('box', {}, 'a'), newStep('bend', {}, 'c')];
    const bent = piece(steps);
    expect(back(bent, 'Twist').ribbons[0].steps.map((s) => s.id)).toEqual(['a', 'b', 'c']);
    expect(back(bent, 'Bend').ribbons[0].steps).toEqual([steps[0]]);
  });
  it('of the loop, a light, a backdrop, a switch', () => {
    const [light] = now.scene.lights;
    const other: Piece = {
      ...now,
      loop: { frames: 50, fps: 25 },
      scene: { ...now.scene, lights: [], backdrop: [newItem(sceneLists.backdrop.kinds.get('clear'))] },
      ribbons: now.ribbons.map((r) => ({ ...r, on: false })),
    };
    expect(back(other, 'Loop').loop).toEqual(old.loop);
    expect(back(other, 'Studio light').scene.lights).toEqual([light]);
    expect(back(other, 'Backdrop').scene.backdrop).toEqual(old.scene.backdrop);
    expect(back(other, 'Ribbon').ribbons.map((r) => r.on)).toEqual([true, false]);
  });
  it('of a ribbon puts it in its place, or at the end where it is gone', () => {
    expect(withRibbonOf(now, old, 'one').ribbons).toEqual(old.ribbons);
    expect(withRibbonOf({ ...now, ribbons: [two] }, old, 'one').ribbons.map((r) => r.id)).toEqual(['two', 'one']);
    expect(withRibbonOf(now, old, 'three')).toBe(now);
  });
});

/** Another version of a piece: values, order, switches, and what is there. */
function later(piece: Piece, dice: Dice): Piece {
  const varied = variation(piece, variablesOf(piece), { seed: dice.whole(1, 1e6), count: 4, reach: 1 }, 2);
  const some = <T>(list: readonly T[], least: number) => list.filter((_, i) => i < least || dice.chance(0.7));
  const mixed = <T>(list: readonly T[]) => (dice.chance(0.3) ? [...list].reverse() : list);
  const onOff = <T extends { on: boolean }>(x: T): T => (dice.chance(0.2) ? { ...x, on: !x.on } : x);
  return {
    ...varied,
    name: dice.chance(0.5) ? piece.name : 'Later',
    loop: dice.chance(0.5) ? piece.loop : { frames: 48, fps: 24 },
    scene: { ...varied.scene, lights: mixed(some(varied.scene.lights, 0)).map(onOff), air: some(varied.scene.air, 0) },
    ribbons: mixed(some(varied.ribbons, 1)).map((r) => {
      const [form, ...steps] = r.steps;
      return onOff({ ...r, steps: [form, ...mixed(some(steps, 0)).map(onOff)] });
    }),
  };
}

describe('everything that differs', () => {
  it('can be brought back alone, and all of it gives the other version', () => {
    for (let seed = 1; seed <= rounds(12, 60); seed++) {
      const dice = new Dice(seed);
      const then = dressed(dice.piece(), dice);
      // Patterns at random may go beyond their limits.
      if (!readPiece(writePiece(then)).ok) continue;
      const present = later(then, dice);
      let here = present;
      for (const d of differences(present, then)) {
        const one = broughtBack(present, then, d);
        const path = JSON.stringify(d.path);
        expect(
          changesBetween(one, then).some((c) => JSON.stringify(c.path) === path),
          `${seed} ${d.what}`,
        ).toBe(false);
        if (dice.chance(0.2)) {
          const read = readPiece(writePiece(one));
          expect(read.ok ? '' : `${seed} ${d.what}: ${read.message}`).toBe('');
        }
        here = broughtBack(here, then, d);
      }
      // Values without effect are not told; they come with what gives them one.
      for (const d of differences(here, then)) here = broughtBack(here, then, d);
      expect(differences(here, then), `${seed}`).toEqual([]);
      const whole = changesBetween(present, then).reduce((p, c) => broughtBack(p, then, c as never), present);
      expect(changesBetween(whole, then), `${seed}`).toEqual([]);
    }
  });
});
