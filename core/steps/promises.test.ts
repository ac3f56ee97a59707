import { beforeAll, describe, expect, it } from 'vitest';
import type { NumberParam } from '../declare/params';
import { form, openEdges, step } from '../fixtures/forms';
import { drawBuffers, drawTopologyOf } from '../shape/drawable';
import { volume } from '../shape/measure';
import type { Mesh } from '../shape/mesh';
import { randomSource } from '../maths/random';
import { stepKind, stepKinds } from './index';
import { StepProblem } from './step';

const random = randomSource(77);
beforeAll(async () => {
  for (const k of stepKinds) await k.load?.();
});

/** Settings in range; counts small. */
function settings(kind: string, fixed: object = {}): object {
  const values = Object.fromEntries(
    Object.entries(stepKind(kind).params).flatMap(([name, p]): [string, unknown][] => {
      if (p.type === 'number') {
        const { soft, integer } = p as NumberParam;
        const x = soft[0] + random() * ((integer ? Math.min(soft[1], soft[0] + 14) : soft[1]) - soft[0]);
        return [[name, integer ? Math.round(x) : x]];
      }
      if (p.type === 'choice' && name !== 'region')
        return [[name, p.options[Math.floor(random() * p.options.length)].value]];
      return [];
    }),
  );
  return { ...values, ...fixed };
}

const closedOutlines = () => [
  form(
    'outline',
    settings('outline', {
      radius: 0.5 + random(),
      aside: 2.5,
      along: 2 + Math.floor(random() * 6),
      hole: random() < 0.5 ? 0 : 40,
    }),
  ),
  form('text', { text: 'Ω8B'.slice(1) }),
];

describe('steps that promise closed bodies keep it over random settings', () => {
  const attempt = (make: () => Mesh): Mesh | null => {
    try {
      return make();
    } catch (error) {
      if (error instanceof StepProblem) return null;
      throw error;
    }
  };
  const held = (m: Mesh | null, what: string) => {
    if (!m || m.positions.length === 0) return;
    expect(openEdges(m), what).toBe(0);
    expect(m.positions.every(Number.isFinite), what).toBe(true);
  };
  it('extrude', () => {
    for (let n = 0; n < 25; n++)
      for (const o of closedOutlines()) {
        const v = settings('extrude', { ends: ['both', 'front', 'back'][n % 3] });
        const solid = attempt(() => step('extrude', o, v));
        held(solid, JSON.stringify(v));
        if (solid && (v as { depth: number }).depth > 0.05 && (v as { bevel: number }).bevel < 0.02)
          expect(volume(solid)).toBeGreaterThan(0);
      }
  });
  it('revolve, all the way and part of it', () => {
    for (let n = 0; n < 25; n++) {
      const o = form('outline', {
        outline: ['circle', 'star', 'polygon'][n % 3],
        points: 5,
        radius: 0.5,
        aside: 1.2,
        facing: 'front',
        along: 3,
      });
      const v = { sides: 3 + n, angle: n % 2 ? 360 : 40 + 10 * n, axis: 'y' };
      const body = step('revolve', o, v);
      held(body, JSON.stringify(v));
      expect(volume(body), JSON.stringify(v)).toBeGreaterThan(0);
    }
  });
  it('sweep and wires, along closed and open curves', () => {
    for (let n = 0; n < 30; n++) {
      const path = form('curve', settings('curve', { along: 20 + n }));
      const v = settings('sweep', { profile: ['square', 'circle', 'polygon', 'star'][n % 4], along: 24 + n });
      held(step('sweep', path, v), JSON.stringify(v));
      held(step('wires', path, settings('wires')), 'wires');
    }
  });
  it('loft between any outlines', () => {
    for (let n = 0; n < 15; n++) {
      const [a, b] = [
        form('outline', settings('outline', { hole: 0, facing: 'up', radius: 1 })),
        step('place', form('outline', settings('outline', { hole: 0, facing: 'up', radius: 0.6 })), {
          shift: [0, 1.5, 0],
        }),
      ];
      held(step('loft', a, { around: 40 + n, rows: 1 + n }, { other: () => b }), `loft ${n}`);
    }
  });
  it('bevel and combine', () => {
    for (let n = 0; n < 12; n++) {
      const body = form(['box', 'platonic', 'cylinder', 'medal'][n % 4], {
        segments: 2,
        rows: 2,
        along: 2,
        rings: 2,
        sides: 8,
      });
      held(step('bevel', body, settings('bevel', { angle: 20 + n })), `bevel ${n}`);
      const other = step('place', form('torus', { ringSegments: 24, pipeSegments: 10 }), {
        shift: [random(), random(), random()],
      });
      held(
        step('combine', body, { way: ['union', 'difference', 'intersection'][n % 3] }, { other: () => other }),
        `combine ${n}`,
      );
    }
  });
});

describe('what is drawn', () => {
  it('covers every triangle once, by finish, with a place for each corner', () => {
    const m = step('shell', step('thin-out', form('torus'), { share: 40 }), {});
    const d = drawTopologyOf(m.connectivity);
    expect(d.groups.map((g) => g.slot)).toEqual([0, 1]);
    expect(d.groups.reduce((s, g) => s + g.count, 0)).toBe(d.triangles.length);
    expect(d.groups[1].start).toBe(d.groups[0].count);
    expect(d.uv).toHaveLength(2 * d.triangles.length);
  });
  it('has the pieces of curves beside faces, also where shading is broken', () => {
    const net = step('edges-to-curves', form('box', { segments: 2 }), { keep: true });
    const d = drawTopologyOf(net.connectivity);
    expect(d.lines.length / 2).toBe(48);
    const alone = drawTopologyOf(step('edges-to-curves', form('box', { segments: 2 })).connectivity);
    expect(alone.triangles).toHaveLength(0);
    expect(alone.lines.length / 2).toBe(48);
    const { positions, normals } = drawBuffers(net);
    expect(positions.length).toBe(normals.length);
    expect(d.lines.every((v) => 3 * v < positions.length)).toBe(true);
  });
  it('a closed ring of curve comes back to its first point', () => {
    const d = drawTopologyOf(form('curve', { curve: 'ring', along: 12 }).connectivity);
    expect([...d.lines]).toEqual(Array.from({ length: 12 }, (_, i) => [i, (i + 1) % 12]).flat());
  });
});

describe('a box with round edges', () => {
  it('has the volume of the formula where its grid is fine', () => {
    // Core, six slabs, twelve quarter cylinders and eight eighths of a ball.
    const [a, r] = [1.4, 0.3];
    const c = a - 2 * r;
    const exact = c ** 3 + 6 * c * c * r + 3 * Math.PI * r * r * c + (4 / 3) * Math.PI * r ** 3;
    expect(Math.abs(volume(form('box', { segments: 80, rounding: r })) / exact - 1)).toBeLessThan(0.003);
    expect(volume(form('box', { segments: 40, rounding: 5 }))).toBeLessThan(4.2 * 0.7 ** 3);
    expect(openEdges(form('box', { rounding: 0.2 }))).toBe(0);
  });
});
