import { describe, expect, it } from 'vitest';
import { quat } from 'gl-matrix';
import { isShown } from '../../declare/shown';
import { boundsShown, centresOf, copyCount } from '../../copies/copies';
import { scatterOn } from '../../copies/scatter';
import { withFinish } from '../../fixtures/edit';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { standsStill } from '../../evaluate/still';
import { form, step } from '../../fixtures/forms';
import { linkPiece } from '../../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc, type StepDoc } from '../../piece/piece';
import { readPiece, writePiece } from '../../piece/read';
import { vertexNormals } from '../../shape/normals';
import type { Copies, Mesh } from '../../shape/mesh';
import { topologyOf } from '../../shape/topology';
import { stepKind } from '../index';
import { copiesAsOf, copiesChoices } from '../step';
import { ordinal, SOURCES } from './sources';
import { vary } from './vary';

const small = form('box', { segments: 1, size: [0.1, 0.1, 0.1] });
const wave = (low: number, high: number) =>
  ({ motion: 'wave', shape: 'sine', width: 50, low, high, turns: 1, phase: 0, rest: 0 }) as never;
const triples = (p: ArrayLike<number>) =>
  Array.from({ length: p.length / 3 }, (_, i) => [p[3 * i], p[3 * i + 1], p[3 * i + 2]]);
const places = (m: Mesh) => triples(centresOf(m.copies!));
const axis = (c: Copies, i: number, k: 0 | 1 | 2) => [...c.matrices.subarray(16 * i + 4 * k, 16 * i + 4 * k + 3)];
const far = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((x, k) => x - b[k]));
const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, x, k) => s + x * b[k], 0);
const ribbon = (id: string, ...steps: StepDoc[]): RibbonDoc => ({ ...newRibbon('box', 0), id, steps });
const piece = (...ribbons: RibbonDoc[]): Piece => ({ ...newPiece(), loop: { frames: 40, fps: 20 }, ribbons });
const shape = (p: Piece, frame = 0, detail: 'draft' | 'final' = 'draft') =>
  evaluateRibbon(linkPiece(p).ribbons[0], p.loop, frame, detail, new MeshCache());
/** Equal in every bit; comparing hundreds of thousands of numbers one by one takes the runner seconds. */
const same = (a: Float32Array, b: Float32Array) =>
  Buffer.from(a.buffer, a.byteOffset, a.byteLength).equals(Buffer.from(b.buffer, b.byteOffset, b.byteLength));
const box = newStep('box', { segments: 1, size: [0.1, 0.1, 0.1] });

describe('several ribbons copied', () => {
  const three = (over: object) =>
    shape(
      piece(
        ribbon('a', box, newStep('repeat-line', { count: 900, second: 'b', third: 'c', ...over })),
        ribbon('b', newStep('sphere')),
        ribbon('c', newStep('cone')),
      ),
    );
  it('in turn: one after the other', () => {
    const { copies } = three({ takes: 'turn' }).mesh;
    expect([...copies!.source.slice(0, 7)]).toEqual([0, 1, 2, 0, 1, 2, 0]);
    expect(copies!.sources).toHaveLength(3);
  });
  it('by chance as often as their shares say, by chi-square', () => {
    const { copies } = three({ takes: 'chance', firstShare: 1, secondShare: 2, thirdShare: 3 }).mesh;
    const seen = [0, 0, 0];
    for (const s of copies!.source) seen[s]++;
    // Upper 1 % point for two degrees of freedom: 9.21.
    expect(seen.reduce((sum, n, k) => sum + (n - 150 * (k + 1)) ** 2 / (150 * (k + 1)), 0)).toBeLessThan(9.21);
    expect(new Set(three({ takes: 'chance', secondShare: 0, thirdShare: 0 }).mesh.copies!.source).size).toBe(1);
  });
  it('up to eight of them; a row after an empty one is not shown and counts for nothing', () => {
    const forms = ['sphere', 'cone', 'torus', 'disc', 'capsule', 'plane', 'cylinder'];
    const many = (over: object) =>
      shape(
        piece(
          ribbon('a', box, newStep('repeat-line', { count: 16, takes: 'turn', ...over })),
          ...forms.map((f, i) => ribbon('bcdefgh'[i], newStep(f))),
        ),
      ).mesh.copies!;
    const all = Object.fromEntries(SOURCES.slice(0, 7).map((name, i) => [name, 'bcdefgh'[i]]));
    expect([...many(all).source]).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 0, 1, 2, 3, 4, 5, 6, 7]);
    expect(many({ ...all, fifth: '' }).sources).toHaveLength(4);
    const { params } = stepKind('repeat-line');
    expect(isShown(params, { takes: 'turn', ...all }, 'eighth')).toBe(true);
    expect(isShown(params, { takes: 'turn', ...all, fifth: '' }, 'seventh')).toBe(false);
    expect(isShown(params, { takes: 'chance', second: 'b' }, 'secondShare')).toBe(true);
    expect(isShown(params, { takes: 'chance', second: '' }, 'secondShare')).toBe(false);
  });
  it('as many as a piece may have, each in its turn', () => {
    const others = SOURCES.map((_, i) => ribbon(`r${i}`, newStep('box')));
    const all = Object.fromEntries(SOURCES.map((name, i) => [name, `r${i}`]));
    const { mesh } = shape(
      piece(ribbon('a', box, newStep('repeat-line', { count: 128, takes: 'turn', ...all })), ...others),
    );
    expect(mesh.copies!.sources).toHaveLength(64);
    expect([...mesh.copies!.source]).toEqual(Array.from({ length: 128 }, (_, i) => i % 64));
    expect([2, 11, 20, 21, 40, 63].map(ordinal)).toEqual([
      'second',
      'eleventh',
      'twentieth',
      'twenty-first',
      'fortieth',
      'sixty-third',
    ]);
    expect(SOURCES.at(-1)).toBe('sixtyFourth');
    expect(new Set(SOURCES).size).toBe(63);
  });
  it('are left out of a document while they name none', () => {
    expect(Object.keys(newStep('repeat-line').values)).toEqual(expect.arrayContaining(['second', 'third']));
    expect(newStep('repeat-line').values).not.toHaveProperty('fourth');
    const read = readPiece(writePiece(piece(ribbon('a', box, newStep('repeat-line', { takes: 'turn', second: 'a' })))));
    expect(read.ok && read.piece.ribbons[0].steps[1].values).not.toHaveProperty('fourth');
  });
  it('in patches: neighbours mostly alike', () => {
    const { copies } = three({ takes: 'patches', way: [0.05, 0, 0], patchSize: 3 }).mesh;
    const changes = [...copies!.source].filter((s, i, all) => i > 0 && s !== all[i - 1]).length;
    expect(new Set(copies!.source).size).toBeGreaterThan(1);
    expect(changes).toBeLessThan(90);
  });
  it('say so where no other is named', () => {
    expect(shape(piece(ribbon('a', box, newStep('repeat-line', { takes: 'turn' })))).problems[0].message).toContain(
      'name a second one',
    );
  });
  it('of which one has copies itself keep their lists', () => {
    const p = piece(
      ribbon('a', box, newStep('repeat-line', { count: 4, takes: 'turn', second: 'b' })),
      ribbon('b', newStep('sphere'), newStep('repeat-rings', { count: 5 })),
    );
    expect(copyCount(shape(p).mesh.copies!)).toBe(2 + 2 * 5);
    expect([...shape(p).mesh.copies!.group!]).toEqual([0, 1, 1, 1, 1, 1, 2, 3, 3, 3, 3, 3]);
  });
});

describe('the finishes of several ribbons', () => {
  const blue = ribbon('b', newStep('sphere'), newStep('repeat-rings', { count: 5 } as never));
  const two = (over: object, second: RibbonDoc = blue) =>
    piece(ribbon('a', box, newStep('repeat-line', { count: 4, takes: 'turn', second: 'b', ...over } as never)), second);
  const worn = (p: Piece, frame = 0) => {
    const { materialIndices, materialRibbons } = shape(p, frame).mesh.copies!;
    return materialIndices ? [...materialIndices].map((k) => (k === 0 ? 'own' : materialRibbons![k - 1])) : [];
  };
  it('stay with their copies, and this ribbon’s copies have its own', () => {
    expect(worn(two({}))).toEqual(['own', ...Array(5).fill('b'), 'own', ...Array(5).fill('b')]);
    expect(worn(two({ ownFinish: false }))).toEqual([]);
    expect(worn(two({ takes: 'own' }))).toEqual([]);
  });
  it('give way to colours that copies have of their own', () => {
    const green = {
      ...blue,
      steps: [...blue.steps, newStep('vary', { what: 'colour', by: 'same', colourTo: '#00ff00' } as never)],
    };
    const { channels } = shape(two({}, green)).mesh.copies!;
    expect(triples(channels!.baseColor!)[1]).toEqual([0, 1, 0]);
    expect(triples(channels!.baseColor!)[0]).toEqual([NaN, NaN, NaN]);
  });
  it('are referred to, so that a finish that moves makes no shape anew', () => {
    const glowing = withFinish(blue, { roughness: wave(0, 80) });
    const p = two({}, glowing);
    expect(shape(p, 10).key).toBe(shape(p, 0).key);
    expect(standsStill(linkPiece(p).ribbons[0].steps)).toBe(true);
  });
  it('are kept through repeats of repeats, whatever the order of the wardrobes', () => {
    const inner = ribbon(
      'c',
      newStep('box'),
      newStep('repeat-line', { count: 2, takes: 'turn', second: 'b' } as never),
    );
    const p = piece(
      ribbon('a', box, newStep('repeat-line', { count: 3, takes: 'turn', second: 'b', third: 'c' } as never)),
      blue,
      inner,
    );
    expect(worn(p)).toEqual(['own', ...Array(5).fill('b'), 'c', ...Array(5).fill('b')]);
  });
});

describe('quarter turns and shares', () => {
  it('are turns by 0, 90, 180 or 270° about one axis, each about as often', () => {
    const { copies } = step('repeat-grid', small, { columns: 20, rows: 20, quarters: 'y' });
    const angles = Array.from(
      { length: 400 },
      (_, i) =>
        Math.round((Math.atan2(-copies!.matrices[16 * i + 2], copies!.matrices[16 * i]) * 180) / Math.PI + 360) % 360,
    );
    const seen = [0, 90, 180, 270].map((a) => angles.filter((x) => x === a).length);
    expect(seen.reduce((a, b) => a + b)).toBe(400);
    for (const n of seen) expect(n).toBeGreaterThan(70);
  });
  it('the draft may show a share of the copies; the final all', () => {
    const p = piece(ribbon('a', box, newStep('repeat-grid', { columns: 40, rows: 25, draftShare: 20 })));
    expect(copyCount(shape(p, 0, 'final').mesh.copies!)).toBe(1000);
    const draft = copyCount(shape(p).mesh.copies!);
    expect(draft).toBeGreaterThan(150);
    expect(draft).toBeLessThan(250);
  });
  it('too many copies are refused with the number and a remedy', () => {
    expect(() => step('repeat-grid', small, { columns: 10_000, rows: 10_000 })).toThrow(
      '100M copies; the most is 1M. Use fewer columns',
    );
  });
});

describe('on a path', () => {
  const path = (over: object, curve: object) =>
    shape(
      piece(
        ribbon('a', box, newStep('repeat-path', { other: 'p', ...over })),
        ribbon('p', newStep('outline', curve as never)),
      ),
    ).mesh;
  it('by spacing evened out, over a part of it, turned and upright', () => {
    const circle = { outline: 'circle', size: 1 };
    const whole = places(path({ by: 'spacing', spacing: 0.5 }, circle));
    const chord = far(whole[0], whole[1]);
    whole.forEach((p, i) => expect(far(p, whole[(i + 1) % whole.length])).toBeCloseTo(chord, 2));
    expect(chord).toBeCloseTo(0.5, 1);
    const half = places(path({ count: 11, to: 50 }, circle));
    expect(far(half[0], half[10])).toBeCloseTo(2 * Math.hypot(...half[0]), 1);
    const upright = path({ count: 8, turned: 'upright' }, circle).copies!;
    for (let i = 0; i < 8; i++) expect(dot(axis(upright, i, 2), [0, 1, 0])).toBeCloseTo(0, 5);
    const not = path({ count: 8, turned: 'no' }, circle).copies!;
    expect(axis(not, 3, 0).map((x) => Math.round(x))).toEqual([1, 0, 0]);
  });
  it('needs a ribbon that is a curve, and says so', () => {
    expect(() => step('repeat-path', small)).toThrow('name one, such as a Curve');
    expect(() => step('repeat-path', small, {}, { other: () => form('box') })).toThrow('a ribbon that is a curve');
  });
});

describe('on a form', () => {
  const globe = form('geodesic', { frequency: 3, radius: 1 });
  const on = (over: object) => step('repeat-points', small, over, { other: () => globe });
  it('one stands on each vertex, edge middle or face, looking outwards', () => {
    const counts = {
      vertices: globe.connectivity.vertexCount,
      edges: topologyOf(globe.connectivity).edges.length / 2,
      faces: globe.connectivity.faceStart.length - 1,
    };
    for (const [where, count] of Object.entries(counts)) {
      const m = on({ on: where });
      expect(copyCount(m.copies!)).toBe(count);
      places(m).forEach((p, i) => expect(dot(axis(m.copies!, i, 1), p) / Math.hypot(...p)).toBeGreaterThan(0.98));
    }
    const normals = triples(vertexNormals(globe.connectivity, globe.positions));
    const off = on({ off: 0.5 });
    places(off).forEach((p, i) =>
      expect(
        far(
          p,
          triples(globe.positions)[i].map((x, k) => x + 0.5 * normals[i][k]),
        ),
      ).toBeLessThan(1e-5),
    );
  });
  it('may be sized by its place: mean 1, larger on larger faces', () => {
    const cone = form('cone', { bottom: 2, top: 0.2, height: 2, rows: 4, sides: 12 });
    const { copies } = step('repeat-points', small, { on: 'faces', fits: true }, { other: () => cone });
    const sizes = Array.from({ length: copyCount(copies!) }, (_, i) => Math.hypot(...axis(copies!, i, 0)));
    expect(sizes.reduce((a, b) => a + b) / sizes.length).toBeCloseTo(1, 4);
    expect(Math.max(...sizes) / Math.min(...sizes)).toBeGreaterThan(2);
  });
});

describe('scattered on what moves', () => {
  const p = (over: object = {}) =>
    piece(
      ribbon('a', box, newStep('scatter', { other: 'b', count: 60, about: 0, ...over })),
      ribbon('b', newStep('sphere', { radius: wave(1, 2), meridians: 32, parallels: 16 })),
    );
  it('copies go along with the surface, each on its spot', () => {
    const [first, later] = [0, 10].map((f) => places(shape(p(), f).mesh));
    const grown = 2 / 1.5;
    first.forEach((x, i) =>
      expect(
        far(
          later[i],
          x.map((v) => v * grown),
        ),
      ).toBeLessThan(1e-4),
    );
    expect(places(shape(p(), 40).mesh)).toEqual(first);
  });
  it('by density there are as many as the first frame has room for', () => {
    const { mesh } = shape(p({ by: 'density', density: 10 }), 10);
    // 4π·1.5² square metres of a sphere of radius 1.5, a little less for its flat faces.
    expect(copyCount(mesh.copies!) / (40 * Math.PI * 2.25)).toBeCloseTo(0.98, 1);
  });
  it('turned by chance about their own Y they keep looking outwards', () => {
    const m = shape(p({ about: 100 })).mesh;
    places(m).forEach((x, i) => expect(dot(axis(m.copies!, i, 1), x) / Math.hypot(...x)).toBeGreaterThan(0.97));
  });
  it('what has no inside says so; what has no faces, too', () => {
    expect(() => step('scatter', small, { where: 'inside' }, { other: () => form('plane') })).toThrow('must be closed');
    expect(() => step('scatter', small, {}, { other: () => form('outline') })).toThrow('a ribbon with faces');
    expect(scatterOn(form('outline'), 5, 0, 0).shares).toHaveLength(0);
  });
});

describe('copies carried whole', () => {
  const line = step('repeat-line', small, { count: 5, way: [0, 1, 0], centred: false });
  const at = (kind: string, values: object, copies?: 'whole' | 'each' | 'one') =>
    shape(
      piece(
        ribbon('a', box, newStep('repeat-line', { count: 5, way: [0, 1, 0], centred: false }), {
          ...newStep(kind, values as never),
          ...(copies ? { copies } : {}),
        }),
      ),
    ).mesh;
  it('by Place are moved, turned and sized exactly as it says', () => {
    const c = at('place', { shift: [1, 2, 3], turn: [0, 90, 0], size: 2 }).copies!;
    const q = quat.setAxisAngle(quat.create(), [0, 1, 0], Math.PI / 2);
    for (let i = 0; i < 5; i++) {
      expect(far(triples(centresOf(c))[i], [1, 2 + 2 * i, 3])).toBeLessThan(1e-5);
      expect(far(axis(c, i, 0), [0, 0, -2])).toBeLessThan(1e-4);
    }
    expect(q[1]).toBeCloseTo(Math.SQRT1_2, 6);
  });
  it('by Twist turn more from copy to copy, and stay the size they are', () => {
    const c = at('twist', { angle: 120, axis: 'y' }).copies!;
    const angle = (i: number) => Math.atan2(-axis(c, i, 0)[2], axis(c, i, 0)[0]) * (180 / Math.PI);
    for (let i = 0; i + 1 < 5; i++) {
      expect(Math.abs(angle(i + 1) - angle(i))).toBeCloseTo(Math.abs(angle(1) - angle(0)), 1);
      expect(Math.hypot(...axis(c, i, 0))).toBeCloseTo(1, 4);
    }
    expect(Math.abs(angle(4) - angle(0))).toBeGreaterThan(100);
  });
  it('by Displace are only shifted', () => {
    const c = at('displace', { direction: 'x', height: 2, rate: 0, scale: 1.3 }).copies!;
    expect(new Set(triples(centresOf(c)).map((p) => p[0].toFixed(3))).size).toBeGreaterThan(3);
    for (let i = 0; i < 5; i++) expect(axis(c, i, 0)).toEqual([1, 0, 0]);
  });
  it('or each is worked on by itself, or all are made one', () => {
    const each = at('twist', { angle: 90 }, 'each').copies!;
    expect([...each.matrices]).toEqual([...line.copies!.matrices]);
    expect(each.sources[0].positions).not.toEqual(line.copies!.sources[0].positions);
    expect(at('smooth', {}).copies!.sources[0].positions).not.toEqual(line.copies!.sources[0].positions);
    expect(at('smooth', {}, 'one').connectivity.vertexCount).toBe(40);
  });
  it('Rest stands all of them on the ground without touching a face', () => {
    const m = at('rest', {});
    expect(boundsShown(m)!.min[1]).toBeCloseTo(0, 5);
    expect(m.copies!.sources[0].positions).toEqual(line.copies!.sources[0].positions);
  });
  it('what a step does with them by its kind, and what else it may', () => {
    const as = (kind: string) => copiesAsOf(stepKind(kind));
    expect(['twist', 'place', 'smooth', 'shell', 'weld', 'tumble'].map(as)).toEqual([
      'whole',
      'whole',
      'each',
      'each',
      'one',
      'each',
    ]);
    expect(['vary', 'repeat-line', 'links', 'box'].map(as)).toEqual([null, null, null, null]);
    expect(copiesAsOf(stepKind('smooth'), 'whole')).toBe('each');
    expect(copiesChoices(stepKind('bend'))).toEqual(['whole', 'each', 'one']);
  });
});

describe('many copies', () => {
  const chain = (count: number): RibbonDoc =>
    ribbon(
      'a',
      box,
      newStep('repeat-line', { count, way: [0.01, 0, 0] }),
      newStep('vary', { what: 'shift', by: 'noise', own: false, rate: 1 }),
      newStep('vary', { what: 'turn', by: 'noise', rate: 1, seed: 2 }),
      newStep('vary', { what: 'size', by: 'noise', rate: 1, seed: 3 }),
    );
  it('are changed in place on the way, and come out as if each step had kept its own', () => {
    const count = 20_001;
    const loop = { frames: 40, fps: 20 };
    const cache = new MeshCache();
    const plain = evaluateRibbon(chain(count), loop, 3, 'final', cache).mesh.copies!;
    const again = evaluateRibbon(chain(count), loop, 3, 'final', new MeshCache()).mesh.copies!;
    expect(same(again.matrices, plain.matrices)).toBe(true);
    // Step by step, each result kept and passed on untouched.
    let mesh = step('repeat-line', small, { count, way: [0.01, 0, 0] });
    const clock = { frame: 3, frames: 40 };
    for (const values of [
      { what: 'shift', by: 'noise', own: false, rate: 1 },
      { what: 'turn', by: 'noise', rate: 1, seed: 2 },
      { what: 'size', by: 'noise', rate: 1, seed: 3 },
    ]) {
      const before = mesh.copies!.matrices.slice();
      const next = step('vary', mesh, values, { clock });
      expect(same(mesh.copies!.matrices, before)).toBe(true);
      mesh = next;
    }
    expect(same(mesh.copies!.matrices, plain.matrices)).toBe(true);
  });
  it('what was kept before them is not changed by them', () => {
    const cache = new MeshCache();
    const loop = { frames: 40, fps: 20 };
    const short = { ...chain(20_001), steps: chain(20_001).steps.slice(0, 2) };
    const line = evaluateRibbon(short, loop, 0, 'final', cache).mesh.copies!.matrices.slice();
    evaluateRibbon({ ...short, steps: [...short.steps, ...chain(20_001).steps.slice(2)] }, loop, 0, 'final', cache);
    expect(same(evaluateRibbon(short, loop, 0, 'final', cache).mesh.copies!.matrices, line)).toBe(true);
  });
});

describe('documents with copies', () => {
  it('keep what a step does with copies, and refuse what it cannot', () => {
    const p = piece(ribbon('a', box, newStep('repeat-line'), { ...newStep('twist'), copies: 'each' }));
    const read = readPiece(writePiece(p));
    expect(read.ok && read.piece.ribbons[0].steps[2].copies).toBe('each');
    const wrong = readPiece(writePiece(p).replace('"each"', '"some"'));
    expect(wrong.ok).toBe(false);
    expect(!wrong.ok && wrong.message).toContain('ribbons[0].steps[2].copies');
  });
  it('rows of Vary are shown for what is varied alone, those of the noise only where it deals', () => {
    const shown = (values: object) =>
      Object.keys(vary.params).filter((name) => isShown(vary.params, values as never, name));
    expect(shown({ what: 'turn', by: 'same' })).toEqual(expect.arrayContaining(['turnTo', 'behind']));
    expect(shown({ what: 'turn', by: 'same' })).not.toEqual(expect.arrayContaining(['colourFrom']));
    expect(shown({ what: 'size', by: 'order' })).not.toEqual(expect.arrayContaining(['noise']));
    expect(shown({ what: 'size', by: 'noise', noise: 'cellular' })).toEqual(
      expect.arrayContaining(['noise', 'metric', 'scale', 'seed']),
    );
    expect(shown({ what: 'size', by: 'order', noise: 'cellular' })).not.toEqual(expect.arrayContaining(['metric']));
  });
});
