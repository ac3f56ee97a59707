import { describe, expect, it } from 'vitest';
import { newStep } from '../piece/piece';
import { evaluateValues } from '../time/values';
import { stepKind } from '../steps/index';
import { ambientOcclusionOf } from './ambient-occlusion';
import type { Mesh } from './mesh';

const clock = { frame: 0, frames: 1 };
const form = (kind: string, values: object = {}): Mesh => {
  const step = stepKind(kind);
  return step.evaluate(evaluateValues(step.params, newStep(kind, values as never).values, clock), undefined as never, {
    clock,
    detail: 'final',
  });
};

describe('crevices', () => {
  it('a convex form has none: no face of it looks at another', () => {
    for (const mesh of [form('sphere'), form('box')])
      for (const c of ambientOcclusionOf(mesh)) expect(c).toBeLessThan(0.02);
  });
  it('of a ring lie at its inner side, and are alike all round', () => {
    const mesh = form('torus', { radius: 0.6, pipe: 0.5 });
    const c = ambientOcclusionOf(mesh);
    const p = mesh.positions;
    const [inner, outer]: [number[], number[]] = [[], []];
    c.forEach((x, v) => {
      const r = Math.hypot(p[3 * v], p[3 * v + 2]);
      if (r < 0.2) inner.push(x);
      if (r > 1) outer.push(x);
    });
    expect(Math.min(...inner)).toBeGreaterThan(0.1);
    expect(Math.max(...outer)).toBeLessThan(0.02);
    expect(Math.max(...inner) - Math.min(...inner)).toBeLessThan(0.35);
  });
  it('do not go by the size of a form', () => {
    const [small, large] = [form('torus', { radius: 0.6, pipe: 0.5 }), form('torus', { radius: 60, pipe: 50 })];
    const [a, b] = [ambientOcclusionOf(small), ambientOcclusionOf(large)];
    a.forEach((x, v) => expect(b[v]).toBeCloseTo(x, 4));
  });
});
