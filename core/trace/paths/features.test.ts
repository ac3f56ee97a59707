import { describe, expect, it } from 'vitest';
import type { Surface } from '../../finish/surface';
import { ball, pictureOf, settings, square, white } from '../fixture';
import { Tracer } from './tracer';
import { FEATURES, FOUND, VALID } from './tile-result';

const SIDE = 16;
const SAMPLES = 16;

/** What grain is taken out by, in the middle of a picture of things one behind the other. */
function seen(...things: readonly [number, Partial<Surface>][]) {
  const tracer = new Tracer();
  const shapes = things.map(([z, surface]) => ({ mesh: square(4, z), surface }));
  tracer.load(pictureOf(shapes, [white]), { ...settings, width: SIDE, height: SIDE });
  return middle(tracer);
}

function middle(tracer: Tracer) {
  const tile = { x: 0, y: 0, width: SIDE, height: SIDE };
  const { features } = tracer.work(tile, 0, SAMPLES, undefined, { features: true, look: false });
  const at = FEATURES * (SIDE * (SIDE / 2) + SIDE / 2);
  const told = features[at + VALID];
  const mean = (k: number) => features[at + k] / told;
  return {
    colour: [0, 1, 2].map(mean),
    normal: [3, 4, 5].map(mean),
    far: mean(6),
    found: features[at + FOUND],
    told,
  };
}

const RED = { baseColor: '#FF0000', roughness: 1 } as const;
const GLASS = { transmission: 1, roughness: 0, baseColor: '#FFFFFF' } as const;

describe('what grain is taken out by', () => {
  it('is what stands behind clear glass, in the colour that glass gives it', () => {
    const plain = seen([1, GLASS], [-1, RED]);
    expect(plain.colour).toEqual([1, 0, 0]);
    // The camera stands 4 m before the middle.
    expect(plain.far).toBeCloseTo(5, 3);
    expect(plain.found).toBe(SAMPLES);
    const blue = seen([1, { ...GLASS, baseColor: '#0000FF' }], [-1, { ...RED, baseColor: '#FFFFFF' }]);
    expect(blue.colour).toEqual([0, 0, 1]);
  });
  it('has the colour of a body of glass once, though light goes in and out', () => {
    const tracer = new Tracer();
    const body = { mesh: ball(0.5, 24), surface: { ...GLASS, baseColor: '#808080', thickness: 1, ior: 1.001 } };
    const wall = { mesh: square(4, -1), surface: { ...RED, baseColor: '#FFFFFF' } };
    tracer.load(pictureOf([body, wall], [white]), { ...settings, width: SIDE, height: SIDE });
    // #808080 in linear light.
    for (const c of middle(tracer).colour) expect(c).toBeCloseTo(0.2159, 3);
  });
  it('is not told by the few samples that glass throws back', () => {
    const { told } = seen([1, { ...GLASS, ior: 1.9 }], [-1, RED]);
    expect(told).toBeLessThan(SAMPLES);
    expect(told).toBeGreaterThan(SAMPLES / 2);
  });
  it('is rough glass itself, and what is matt, glossy or lacquered', () => {
    for (const surface of [
      { ...GLASS, roughness: 0.6 },
      { ...RED, baseColor: '#FFFFFF' },
      { baseColor: '#FFFFFF', roughness: 0.05 },
      { baseColor: '#FFFFFF', roughness: 1, coat: 1, coatRoughness: 0 },
    ]) {
      const { colour, far, told } = seen([1, surface], [-1, RED]);
      expect(colour).toEqual([1, 1, 1]);
      expect(far).toBeCloseTo(3, 3);
      expect(told).toBe(SAMPLES);
    }
  });
  it('is what is seen in a mirror; nothing, and far off, where it shows nothing', () => {
    const gold = { metalness: 1, roughness: 0, baseColor: '#FFFF00' } as const;
    const { colour, normal, far, told } = seen([0, gold]);
    expect(told).toBe(SAMPLES);
    expect(colour).toEqual([1, 1, 0]);
    expect(far).toBeGreaterThan(100);
    // Towards the mirror, and the way it looks itself.
    for (const [k, x] of [0, 0].entries()) expect(normal[k]).toBeCloseTo(x, 1);
    const tracer = new Tracer();
    const room = { mesh: ball(6, 12), surface: RED };
    tracer.load(pictureOf([{ mesh: square(1), surface: { ...gold, baseColor: '#FFFFFF' } }, room], [white]), {
      ...settings,
      width: SIDE,
      height: SIDE,
    });
    expect(middle(tracer).colour).toEqual([1, 0, 0]);
  });
});
