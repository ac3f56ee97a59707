import type { DisplayEffectType, PictureEffectAt } from '../scene/kind';
import { plainMaths, type Maths } from '../pattern/maths';

/** The picture that an effect is applied to. */
export interface Shown {
  readonly width: number;
  readonly height: number;
}

/** Changes display values at a position, 0…1 from the left and from the top; in place. */
export type DisplayEffect = (c: number[], u: number, v: number) => void;

type Effect<T extends PictureEffectAt['type']> = Extract<PictureEffectAt, { type: T }>;

const mix = (a: number, b: number, t: number) => a + (b - a) * t;
const held = (x: number) => Math.max(0, Math.min(1, x));
const greyOf = (c: readonly number[]) => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];

/** Distance from the middle, 1 at the corners. */
export function outwards(u: number, v: number): number {
  return Math.hypot(u - 0.5, v - 0.5) * Math.SQRT2;
}

/**
 * Value of a film grain, −1…1, distributed as a tent around 0, hashed from its position and the seed.
 *
 * @param x, y index of the grain, from the left and from below
 */
export function grainAt<N>(m: Maths<N>, x: N, y: N, which: N): N {
  const row = m.floor(m.mul(m.chance(y, which), m.number(2 ** 22)));
  return m.sub(m.add(m.chance(x, row), m.chance(x, m.add(row, m.number(1)))), m.number(1));
}

/** Seed of the grain as an integer. */
export function grainNumber(thrown: number): number {
  return Math.round(thrown * 100) % 2 ** 22;
}

/** Picture effects in plain numbers; web/view/effects/picture-effects has the same as shaders. */
const done: { [T in DisplayEffectType]: (e: Effect<T>, of: Shown) => DisplayEffect } = {
  vignette:
    ({ amount, reach }) =>
    (c, u, v) => {
      const t = held((outwards(u, v) - (1 - reach)) / (1.08 - (1 - reach)));
      const left = 1 - t * t * (3 - 2 * t) * amount;
      for (let k = 0; k < 3; k++) c[k] *= left;
    },
  grain({ amount, size, throw: thrown }, { width, height }) {
    const cells = height / Math.max((size * height) / 1000, 1);
    const which = grainNumber(thrown);
    return (c, u, v) => {
      // Counted from below, as the shader does.
      const x = Math.floor((u * width * cells) / height);
      const y = Math.floor((1 - v) * cells);
      const g = grainAt(plainMaths, x, y, which);
      // Film has most grain in its midtones.
      const grey = greyOf(c);
      const tone = grey * (1 - grey) * 4 * 0.75 + 0.25;
      for (let k = 0; k < 3; k++) c[k] += g * amount * tone * 0.6;
    };
  },
  grade:
    ({ lift, gamma, gain }) =>
    (c) => {
      for (let k = 0; k < 3; k++) c[k] = Math.max(0, (c[k] + lift[k] * (1 - c[k])) * gain[k]) ** (1 / gamma[k]);
    },
  levels:
    ({ heights, slopes, of }) =>
    (c) => {
      for (let k = 0; k < 3; k++) {
        const x = held(c[k]) * 4;
        const i = Math.min(3, Math.floor(x));
        const t = x - i;
        const [t2, t3] = [t * t, t * t * t];
        const curve =
          heights[i] * (2 * t3 - 3 * t2 + 1) +
          (slopes[i] / 4) * (t3 - 2 * t2 + t) +
          heights[i + 1] * (3 * t2 - 2 * t3) +
          (slopes[i + 1] / 4) * (t3 - t2);
        c[k] = mix(c[k], curve, of[k]);
      }
    },
  look({ contrast, saturation, warmth, lift }) {
    const warm = [1 + warmth * 0.22, 1 + warmth * 0.03, 1 - warmth * 0.24];
    return (c) => {
      const grey = greyOf(c);
      for (let k = 0; k < 3; k++) {
        const x = held(mix(grey, c[k], saturation) * warm[k]);
        // An S-curve through 0, ½ and 1; softer is the way back to the straight line and beyond.
        c[k] = mix(x, x * x * (3 - 2 * x), contrast) * (1 - lift) + lift;
      }
    };
  },
};

/** The effects of a list that apply to display values, in their order. */
export function displayEffects(list: readonly PictureEffectAt[], of: Shown): readonly DisplayEffect[] {
  return list.flatMap((e): DisplayEffect[] => {
    switch (e.type) {
      case 'vignette':
        return [done.vignette(e, of)];
      case 'grain':
        return [done.grain(e, of)];
      case 'grade':
        return [done.grade(e, of)];
      case 'levels':
        return [done.levels(e, of)];
      case 'look':
        return [done.look(e, of)];
      case 'bloom':
      case 'fringe':
        return [];
    }
  });
}
