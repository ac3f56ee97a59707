import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

export const MEAN = 0.2205;
export const SPREAD = 3.2;

/** Σ |n(2ⁱp)| / 2ⁱ, three terms (K. Perlin, “An Image Synthesizer”, SIGGRAPH 1985). Offset to mean 0. */
export const turbulence: NoiseKind = {
  kind: 'turbulence',
  title: 'Turbulent',
  help: 'Boiling detail within puffs.',
  field(seed, rate, clock, options) {
    const mask = options?.mask ?? 255;
    const layers = [0, 1, 2].map((i) =>
      gradientField(seed + 1013 * i, rate, clock, { mask: Math.min(255, (mask + 1) * 2 ** i - 1) }),
    );
    const [a, b, c] = layers;
    return (x, y, z) =>
      ((Math.abs(a(x, y, z)) + 0.5 * Math.abs(b(2 * x, 2 * y, 2 * z)) + 0.25 * Math.abs(c(4 * x, 4 * y, 4 * z))) /
        1.75 -
        MEAN) *
      SPREAD;
  },
};
