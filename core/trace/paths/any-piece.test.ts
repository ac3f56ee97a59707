import { describe, expect, it } from 'vitest';
import { makeReady } from '../../evaluate/assets';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { Dice } from '../../fixtures/dice';
import { dressed } from '../../fixtures/dress';
import { linkPiece } from '../../piece/link';
import { newFinish, newItem, newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '../../piece/piece';
import { readPiece, writePiece } from '../../piece/read';
import { finishParts } from '../../finish/parts/index';
import { sceneLists } from '../../scene/index';
import { settings } from '../fixture';
import { BorrowedExposure, Exposure, instantPictures } from './exposure';
import { bouncesOf } from './tracer';
import { COUNT, FEATURES, SUMS } from './tile-result';
import { rounds } from '../../fixtures/effort';

const SIDE = 16;
const size = { ...settings, width: SIDE, height: SIDE, bounces: bouncesOf(3), fireflyClamp: 20, passes: true };

const seeds = (first: number, count: number) => Array.from({ length: count }, (_, i) => first + i);
const whole = { x: 0, y: 0, width: SIDE, height: SIDE };

/**
 * Traces a frame of a piece with two samples a pixel, and looks at every number. Who reads it in the memory of another has
 * the same.
 */
async function traced(piece: Piece): Promise<void> {
  for (const r of linkPiece(piece).ribbons) await makeReady(r, () => Promise.reject(new Error('none')));
  const cache = new MeshCache();
  const pictures = instantPictures(piece, 1.5, (r, f) => evaluateRibbon(r, piece.loop, f, 'draft', cache).mesh, 16);
  const exposure = new Exposure(pictures, size, [], 2);
  const worked = exposure.traced(whole, 2);
  const [lent] = exposure.lend();
  expect(new BorrowedExposure(lent).traced(whole, 2)).toEqual(worked);
  const { sums, features, passes } = worked;
  const wrong = (list: ArrayLike<number>, is: (x: number, i: number) => boolean) => {
    for (let i = 0; i < list.length; i++) if (!is(list[i], i)) return `${list[i]} at ${i}`;
    return null;
  };
  expect(wrong(sums, (x) => Number.isFinite(x) && x >= 0)).toBeNull();
  expect(wrong(sums, (x, i) => i % SUMS !== COUNT || x === 2)).toBeNull();
  expect(wrong(sums, (x, i) => i % SUMS !== 3 || x <= 2)).toBeNull();
  expect(wrong(features, Number.isFinite)).toBeNull();
  expect(features.length).toBe(FEATURES * SIDE * SIDE);
  expect(wrong(passes!, Number.isFinite)).toBeNull();
}

describe('any piece is traced without a number that is none, and with all samples in every pixel', () => {
  it.each(seeds(1, rounds(4, 12)))('of forms and copies, chance number %i', async (seed) => {
    await traced(seed % 2 ? new Dice(seed).piece() : new Dice(seed + 1000).copies(24, false));
  });
  it.each(seeds(101, rounds(6, 16)))(
    'of all finishes, patterns, lights, air and grounds, chance number %i',
    async (seed) => {
      const dice = new Dice(seed);
      const piece = dressed(seed % 2 ? dice.copies(24, false) : dice.piece(), dice);
      expect(readPiece(writePiece(piece))).toMatchObject({ ok: true });
      await traced(piece);
    },
  );
  it.each(seeds(201, rounds(1, 3)))('of endless forms, chance number %i', async (seed) => {
    const dice = new Dice(seed);
    const piece = { ...newPiece('Endless'), ribbons: [{ ...newRibbon('endless', 0), steps: [newStep('endless')] }] };
    await traced(dressed(piece, dice));
  });
});

describe('what would trouble a tracer', () => {
  const ball = () => ({ ...newRibbon('sphere', 0), steps: [newStep('sphere')] });
  it('is drawn: faces without area, points that are no numbers, nothing at all', async () => {
    const flat = { ...newRibbon('sphere', 0), steps: [newStep('sphere'), newStep('place', { size: 0 })] };
    await traced({ ...newPiece('Flat'), ribbons: [flat] });
    await traced(newPiece('Empty'));
    const piece = { ...newPiece('Broken'), ribbons: [ball()] };
    const broken = (r: RibbonDoc, f: number) => {
      const { mesh } = evaluateRibbon(r, piece.loop, f, 'draft', new MeshCache());
      return { ...mesh, positions: mesh.positions.map((x, i) => (i % 17 === 0 ? NaN : i % 101 === 0 ? Infinity : x)) };
    };
    const pictures = instantPictures(piece, 0, broken, 8);
    const { sums } = new Exposure(pictures, size).traced(whole, 2);
    expect(sums.every((x) => Number.isFinite(x) && x >= 0)).toBe(true);
  });
  it('is drawn: a camera within a form, and lamps within glass', async () => {
    const inside = { ...newPiece('Inside'), ribbons: [ball()] };
    const camera = { ...inside.scene.cameras[0], values: { ...inside.scene.cameras[0].values, distance: 0.1 } };
    await traced({ ...inside, scene: { ...inside.scene, cameras: [camera] } });
    const glass = newItem(finishParts.get('glass'), { transmission: 100 });
    const lamp = newItem(sceneLists.lights.kinds.get('ball'), { place: [0, 0, 0], radius: 0.2 });
    const bottle = { ...ball(), finishes: [{ ...newFinish(), parts: [...newFinish().parts, glass] }] };
    const lit = { ...inside, ribbons: [bottle], scene: { ...inside.scene, lights: [lamp] } };
    expect(readPiece(writePiece(lit))).toMatchObject({ ok: true });
    await traced(lit);
  });
});
