import { describe, expect, it } from 'vitest';
import { strToU8 } from 'fflate';
import { MeshCache } from '../evaluate/mesh-cache';
import { assetsIn } from '../evaluate/assets';
import { evaluateRibbon, ribbonFingerprint } from '../evaluate/ribbon';
import { readGltf } from '../files/gltf';
import { proveSeam } from '../seam/proof';
import { compileFormula, constantOf } from '../time/formula/compile';
import { inferGoing } from '../time/formula/infer';
import { parseFormula, type Term } from '../time/formula/parse';
import type { LayerDoc, MotionDoc } from '../time/motion';
import { linkPiece } from './link';
import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from './piece';

/** How often a property of any term is read. */
function counted(term: Term, count: { n: number }): Term {
  return new Proxy(term, {
    get(target, name) {
      count.n++;
      const value = (target as unknown as Record<PropertyKey, unknown>)[name];
      return value && typeof value === 'object' && 'type' in value
        ? (known.get(value) ?? known.set(value, counted(value as Term, count)).get(value))
        : value;
    },
  });
}
const known = new Map<object, unknown>();

describe('work that a document could make grow without bound', () => {
  it('a formula of constants is worked out in steps that grow with its length squared at most', () => {
    const reads = (factors: number) => {
      const count = { n: 0 };
      const term = counted(parseFormula(Array.from({ length: factors }, () => '2').join('*') + '*3'), count);
      expect(constantOf(term)).toBe(2 ** factors * 3);
      expect(compileFormula(term)({} as never)).toBe(2 ** factors * 3);
      inferGoing(term, 50);
      return count.n;
    };
    const [short, long] = [reads(6), reads(24)];
    expect(long / short).toBeLessThan(4 * 4 * 1.5);
    expect(reads(56)).toBeLessThan(200_000);
  });

  it('ribbons that all name each other share what they name', () => {
    const count = 21;
    const all = Array.from({ length: count }, (_, i): RibbonDoc => ({
      ...newRibbon('box', i),
      id: `r${i}`,
      steps: [
        newStep('box', { segments: 1 }),
        ...Array.from({ length: count }, (_, k) =>
          newStep('push', { away: 'ribbon', other: `r${k}`, amount: 0.01 }),
        ).filter((_, k) => k !== i),
      ],
    }));
    const linked = linkPiece({ ...newPiece('Circle'), ribbons: all });
    const seen = new Set<RibbonDoc>();
    const visit = (r: RibbonDoc): void => {
      if (seen.has(r)) return;
      seen.add(r);
      for (const s of r.steps) for (const o of Object.values(s.others ?? {})) visit(o);
    };
    visit(linked.ribbons[0]);
    expect(seen.size).toBe(count);
    expect(assetsIn(linked.ribbons[0])).toEqual([]);
    expect(ribbonFingerprint(linked.ribbons[0], { frames: 10, fps: 25 }, 'draft')).toHaveLength(22);
    // Each of them is evaluated once for each step that waits for it, not once for each way that leads to it.
    expect(
      evaluateRibbon(linked.ribbons[0], { frames: 10, fps: 25 }, 0, 'draft', new MeshCache()).mesh.positions.length,
    ).toBeGreaterThan(0);
  });

  it('two that name each other each do with the other as it is without them', () => {
    const one = (id: string, other: string): RibbonDoc => ({
      ...newRibbon('box', 0),
      id,
      steps: [newStep('box'), newStep('push', { away: 'ribbon', other })],
    });
    const [a] = linkPiece({ ...newPiece('Two'), ribbons: [one('a', 'b'), one('b', 'a')] }).ribbons;
    expect(a.steps[1].others!.other.id).toBe('b');
    expect(a.steps[1].others!.other.steps[1].others).toBeUndefined();
  });

  it('layers that follow layered values are followed up to a budget, and beyond it the value stands and says why', () => {
    const follow = (of: string): MotionDoc => ({
      motion: 'follow',
      of,
      scale: 1,
      offset: 0,
      delay: 0,
      springy: false,
      swings: 4,
      damping: 40,
      otherwise: 3,
    });
    const layered = (of: string): MotionDoc => ({
      ...follow(of),
      layers: Array.from({ length: 12 }, (): LayerDoc => ({ how: 'add', on: true, motion: follow(of) })),
    });
    const steps = Array.from({ length: 12 }, (_, i) =>
      newStep(
        'twist',
        {
          angle:
            i === 0
              ? { motion: 'wave', shape: 'sine', low: 0, high: 1, turns: 1, phase: 0 }
              : (layered(`r/t${i - 1}/angle`) as never),
        },
        `t${i}`,
      ),
    );
    const piece: Piece = {
      ...newPiece('Deep'),
      ribbons: [{ ...newRibbon('box', 0), id: 'r', steps: [newStep('box'), ...steps] }],
    };
    const linked = linkPiece(piece);
    const third = linked.ribbons[0].steps[3].values.angle as MotionDoc;
    expect((third as { source?: unknown }).source).toBeDefined();
    const last = linked.ribbons[0].steps[12].values.angle as MotionDoc;
    expect((last as { source?: unknown }).source).toBeUndefined();
    const lost = proveSeam(piece).findings.filter((f) => f.kind === 'lost');
    expect(lost.length).toBeGreaterThan(0);
    expect(lost[0].words).toMatch(/more than 5000 motions in all; let it follow fewer\. It stands at 3 °\.$/);
  });
});

describe('glTF files that claim more than they hold', () => {
  const read = (json: object) => readGltf(strToU8(JSON.stringify({ asset: { version: '2.0' }, ...json })));
  const points = (count: number, more: object = {}) => ({ componentType: 5126, type: 'VEC3', count, ...more });
  it('an accessor without data used by many meshes', async () => {
    const mesh = { primitives: [{ attributes: { POSITION: 0 } }] };
    const json = {
      accessors: [points(900_000)],
      meshes: [mesh],
      nodes: Array.from({ length: 30 }, () => ({ mesh: 0 })),
    };
    await expect(read(json)).rejects.toThrow(
      'The file has 27000000 points; the most is 1000000. Decimate it before importing.',
    );
    await expect(
      read({ accessors: Array.from({ length: 9 }, () => points(900_000)), meshes: [], nodes: [] }),
    ).rejects.toThrow('The file claims 65 MB of numbers that it does not hold; the most is 64 MB.');
  });
  it('nodes that multiply what is below them', async () => {
    // Each of twenty nodes has the next one twice.
    const nodes = Array.from({ length: 20 }, (_, i) => (i === 19 ? { mesh: 0 } : { children: [i + 1, i + 1] }));
    await expect(
      read({ accessors: [points(300)], meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }], nodes }),
    ).rejects.toThrow(/The file has 157286400 points/);
  });
  it('sparse counts beyond what there is', async () => {
    const sparse = { count: 1e9, indices: { bufferView: 0, componentType: 5123 }, values: { bufferView: 0 } };
    const buffers = [{ byteLength: 12, uri: 'data:application/octet-stream;base64,AAAAAAAAAAAAAAAA' }];
    await expect(
      read({
        buffers,
        bufferViews: [{ buffer: 0, byteLength: 12 }],
        accessors: [points(3, { sparse })],
        meshes: [],
        nodes: [],
      }),
    ).rejects.toThrow('Accessor 0 replaces 1000000000 of its 3 elements');
  });
});
