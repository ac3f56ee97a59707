import { describe, expect, it } from 'vitest';
import { evaluateRibbon } from '../evaluate/ribbon';
import { MeshCache } from '../evaluate/mesh-cache';
import { Dice } from '../fixtures/dice';
import { finishLook, sceneLook, withFinishLook, withSceneLook } from '../looks/look';
import { motionInto, ribbonLook, stepsLook, withRibbons, withSteps } from '../looks/kept-parts';
import { readClip, clipText } from './clip-text';
import { clipRibbons, pasteRibbons } from './clipping';
import { copyAll, copyRibbons, copySteps } from './copy';
import { linkPiece, sourcesOf } from './link';
import { pairRibbon, twinsOf } from './pair';
import { newItem, newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from './piece';
import { readPiece, writePiece } from './read';
import { ownersOf } from './walk';
import { sceneLists } from '../scene/index';
import { rounds } from '../fixtures/effort';

const bytes = (a: Float32Array) => Buffer.from(a.buffer, a.byteOffset, a.byteLength);
const shapeOf = (piece: Piece, ribbon: RibbonDoc) => {
  const linked = linkPiece(piece).ribbons.find((r) => r.id === ribbon.id)!;
  const { mesh } = evaluateRibbon(linked, piece.loop, 7, 'draft', new MeshCache());
  return [bytes(mesh.positions), ...(mesh.copies ? [bytes(mesh.copies.matrices)] : [])];
};
/** Addresses that values of ribbons follow, and of which nothing is there. */
const lost = (piece: Piece) => {
  const there = new Set(ownersOf(piece).map((o) => o.item.id));
  return ownersOf(piece)
    .filter((o) => o.ribbon)
    .flatMap(({ item }) => Object.values(item.values).flatMap(sourcesOf))
    .filter((of) => !there.has(of.split('/')[1]));
};
const identifiers = (piece: Piece) => [
  ...piece.ribbons.flatMap((r) => [r.id, ...r.finishes.map((f) => f.id)]),
  ...ownersOf(piece).map((o) => o.item.id),
];
const wave = { motion: 'wave', shape: 'sine', low: 0, high: 40, turns: 1, phase: 0 } as const;
const follow = (of: string, otherwise = 5) => ({
  motion: 'follow',
  of,
  scale: 1,
  offset: 0,
  delay: 0,
  springy: false,
  swings: 3,
  damping: 30,
  otherwise,
});

describe('copies of anything', () => {
  const pieces = Array.from({ length: rounds(10, 24) }, (_, i) => new Dice(500 + i).piece());
  it('of random pieces are the same shapes in every bit, with identifiers and links of their own', () => {
    let followed = 0;
    for (const piece of pieces) {
      const copies = copyRibbons(piece.ribbons, (r) => `${r.name} copy`);
      const both: Piece = { ...piece, ribbons: copies };
      expect(readPiece(writePiece(both)).ok).toBe(true);
      expect(lost(both)).toEqual([]);
      const beside: Piece = { ...piece, ribbons: [...piece.ribbons, ...copies] };
      expect(new Set(identifiers(beside)).size).toBe(identifiers(beside).length);
      // By itself, so that it hangs on nothing of the original, and stands in the same place.
      piece.ribbons.forEach((r, i) => expect(shapeOf(both, copies[i])).toEqual(shapeOf(piece, r)));
      followed += ownersOf(both).flatMap(({ item }) => Object.values(item.values).flatMap(sourcesOf)).length;
    }
    expect(followed).toBeGreaterThan(rounds(2, 8));
  }, 600_000);
  it('pasted, kept and brought back they are, too, and their links hold', () => {
    for (const piece of pieces.slice(0, rounds(4, 8))) {
      const ids = piece.ribbons.map((r) => r.id);
      for (const made of [
        pasteRibbons({ ...newPiece(), loop: piece.loop }, clipRibbons(piece, ids)),
        withRibbons({ ...newPiece(), loop: piece.loop }, ribbonLook('Kept', piece, ids)),
      ]) {
        if (!made.ok) throw new Error(made.message);
        expect(made.dropped).toBe(0);
        expect(lost(made.piece)).toEqual([]);
        made.ids.forEach((id, i) => {
          const copy = made.piece.ribbons.find((r) => r.id === id)!;
          expect(shapeOf(made.piece, copy)).toEqual(shapeOf(piece, piece.ribbons[i]));
        });
      }
    }
  }, 600_000);
});

describe('pairs', () => {
  const first = { ...newRibbon('torus', 0, 'One'), steps: [newStep('torus'), newStep('twist', { angle: 20 })] };
  const second = pairRibbon(first, 'Two');
  const piece: Piece = { ...newPiece(), ribbons: [first, second] };
  const angle = (ribbon: RibbonDoc, of: Piece) =>
    twinsOf(of, { owner: { type: 'step', ribbon: ribbon.id, item: ribbon.steps[1].id }, param: 'angle' });
  it('a copy of one of a pair goes its own way', () => {
    for (const one of [first, second]) {
      const [copy] = copyRibbons([one], () => 'Copy');
      const all = { ...piece, ribbons: [first, second, copy] };
      expect(copy.twin).toBeUndefined();
      expect(copy.steps.some((s) => s.twin !== undefined)).toBe(false);
      expect(angle(copy, all)).toEqual([]);
      expect(angle(first, all)).toHaveLength(1);
    }
  });
  it('a pair that is pasted is a pair of its own', () => {
    const pasted = pasteRibbons(piece, clipRibbons(piece, [first.id, second.id]));
    if (!pasted.ok) throw new Error(pasted.message);
    const [a, b] = pasted.piece.ribbons.slice(2);
    expect(b.twin).toBe(a.id);
    expect(angle(a, pasted.piece).map((x) => 'ribbon' in x.owner && x.owner.ribbon)).toEqual([b.id]);
    expect(angle(first, pasted.piece).map((x) => 'ribbon' in x.owner && x.owner.ribbon)).toEqual([second.id]);
  });
  it('a step that is duplicated goes along with nothing', () => {
    const [copy] = copySteps(second, [second.steps[1].id]);
    expect(copy.twin).toBeUndefined();
    const twice = { ...second, steps: [...second.steps, copy] };
    const all: Piece = { ...piece, ribbons: [first, twice] };
    expect(
      twinsOf(all, { owner: { type: 'step', ribbon: first.id, item: first.steps[1].id }, param: 'angle' }),
    ).toHaveLength(1);
  });
});

describe('what follows within something that is kept', () => {
  const ribbon = newRibbon('torus', 0, 'Ring');
  const [base, metal] = ribbon.finishes[0].parts;
  const finish = {
    ...ribbon.finishes[0],
    parts: [
      { ...base, values: { ...base.values, roughness: wave } },
      { ...metal, values: { ...metal.values, metalness: follow(`${ribbon.id}/${base.id}/roughness`) } },
    ],
  } as RibbonDoc['finishes'][0];
  const worn: RibbonDoc = { ...ribbon, finishes: [finish] };
  it('goes on following in a finish', () => {
    const to = newRibbon('box', 1, 'Crate');
    const used = withFinishLook({ ...newPiece(), ribbons: [to] }, to.id, finishLook('Kept', worn, finish));
    expect(used.dropped).toBe(0);
    expect(lost(used.piece)).toEqual([]);
    const [b, m] = used.piece.ribbons[0].finishes[0].parts;
    expect(m.values.metalness).toMatchObject({ of: `${to.id}/${b.id}/roughness` });
  });
  it('goes on following in lights', () => {
    const kind = sceneLists.lights.kinds.all[0];
    const [one, two] = [newItem(kind), newItem(kind)];
    const name = Object.keys(kind.params).find((k) => kind.params[k].type === 'number')!;
    const piece: Piece = {
      ...newPiece(),
      scene: {
        ...newPiece().scene,
        lights: [
          { ...one, values: { ...one.values, [name]: wave } },
          { ...two, values: { ...two.values, [name]: follow(`scene/${one.id}/${name}`) } },
        ],
      },
    };
    const used = withSceneLook(newPiece(), 'lights', sceneLook('Kept', 'lights', piece));
    expect(used.dropped).toBe(0);
    const [a, b] = used.piece.scene.lights;
    expect(a.id).not.toBe(one.id);
    expect(b.values[name]).toMatchObject({ of: `scene/${a.id}/${name}` });
  });
  it('goes on following in steps, in the ribbon that they come into', () => {
    const twist = newStep('twist', { angle: wave });
    const bend = newStep('bend', { angle: follow(`${ribbon.id}/${twist.id}/angle`) });
    const piece: Piece = { ...newPiece(), ribbons: [{ ...ribbon, steps: [...ribbon.steps, twist, bend] }] };
    const to = newRibbon('box', 1, 'Crate');
    const clip = readClip(clipText('steps', stepsLook('Steps', piece, ribbon.id)));
    if (!clip.ok) throw new Error(clip.message);
    const made = withSteps({ ...newPiece(), ribbons: [to] }, to.id, clip.look);
    if (!made.ok) throw new Error(made.message);
    const [, t, b] = made.piece.ribbons[0].steps;
    expect(b.values.angle).toMatchObject({ of: `${to.id}/${t.id}/angle` });
    expect(made.dropped).toBe(0);
  });
  it('and what it followed elsewhere is dropped, counted, and stands where it would', () => {
    const step = newStep('twist', { angle: follow('elsewhere/nowhere/angle', 12) });
    const piece: Piece = { ...newPiece(), ribbons: [{ ...ribbon, steps: [...ribbon.steps, step] }] };
    const { piece: copied, dropped } = copyAll(piece, { exists: () => false });
    expect(dropped).toBe(1);
    expect(copied.ribbons[0].steps[1].values.angle).toBe(12);
    expect(motionInto(newPiece(), follow('elsewhere/nowhere/angle', 12) as never)).toEqual({ motion: 12, dropped: 1 });
    // Something added to it stays.
    const layered = { ...follow('elsewhere/nowhere/angle', 12), layers: [{ how: 'add', on: true, motion: wave }] };
    const { motion } = motionInto(newPiece(), layered as never);
    expect(motion).toMatchObject({ motion: 'formula', text: '12', layers: [{ motion: wave }] });
  });
});
