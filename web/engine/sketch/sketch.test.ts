import { defaultsOf } from '@maypole/core/declare/params';
import { EMPTY_MESH } from '@maypole/core/evaluate/ribbon';
import { stepKind } from '@maypole/core/steps/index';
import { describe, expect, it } from 'vitest';
import { form } from '@maypole/core/fixtures/forms';
import { sketch } from './sketch';

const make = (kind: string, values: object = {}) =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, EMPTY_MESH, {
    clock: { frame: 0, frames: 10 },
    detail: 'draft',
  });
const filled = (image: Uint8ClampedArray) => image.reduce((n, v, i) => n + Number(i % 4 === 3 && v === 255), 0);

describe('sketches', () => {
  it('of a ball are a disc as large as its outline, lighter towards the light', () => {
    const size = 100;
    const image = sketch(make('geodesic'), size, '#ff8040');
    expect(filled(image) / (Math.PI * (0.47 * size) ** 2)).toBeCloseTo(1, 1);
    const at = (x: number, y: number) => image[4 * (y * size + x)];
    expect(at(42, 22)).toBeGreaterThan(at(60, 85) + 40);
    expect(image[3]).toBe(0);
  });
  it('show the hole of a ring, and nothing of nothing', () => {
    expect(filled(sketch(EMPTY_MESH, 40, '#ffffff'))).toBe(0);
    const ring = sketch(make('torus', { ringRadius: 1, pipeRadius: 0.12 }), 100, '#ffffff');
    expect(ring[4 * (50 * 100 + 50) + 3]).toBe(0);
    expect(filled(ring)).toBeGreaterThan(500);
  });
  it('hide what is behind: two boxes one behind the other are as one', () => {
    const one = make('box', { size: [1, 1, 1], segments: 1 });
    const mirrored = stepKind('mirror').evaluate({ axis: 'x', at: 0, fold: false } as never, one, {
      clock: { frame: 0, frames: 10 },
      detail: 'draft',
    });
    expect(Math.abs(filled(sketch(mirrored, 80, '#ffffff')) - filled(sketch(one, 80, '#ffffff')))).toBeLessThan(40);
  });
  it('draws curves that have no faces', () => {
    const image = sketch(form('curve', { curve: 'ring' }), 48, '#3a86b7');
    const drawn = Array.from({ length: 48 * 48 }, (_, i) => image[4 * i + 3] > 0).filter(Boolean).length;
    expect(drawn).toBeGreaterThan(100);
    expect(drawn).toBeLessThan(600);
  });
});
