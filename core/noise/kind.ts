import type { Clock } from '../time/loop';

/** A scalar field in space; nominally −1…1 with mean 0. */
export type Field = (x: number, y: number, z: number) => number;

/** Distance metric of cellular noise. */
export type Metric = 'euclidean' | 'manhattan' | 'chebyshev';

/** What a kind may need besides seed, rate and moment. */
export interface NoiseOptions {
  /**
   * Period of the lattice along each axis, less one: a power of two less one, at most 255. Noise that travels by whole
   * tiles has small ones.
   */
  readonly mask: number;
  /** Cellular kinds only. */
  readonly metric: Metric;
  /** 0…1: how far feature points may lie from the centre of their cells. */
  readonly jitter: number;
}

export const USUAL_NOISE: NoiseOptions = { mask: 255, metric: 'euclidean', jitter: 1 };

/** A kind of noise, declared once. */
export interface NoiseKind {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  /**
   * How many times `mask` + 1 features the pattern's period along each axis is: 1 on a square lattice, the default; 3
   * on that of simplices; 0 if it never repeats, so that it cannot travel.
   */
  readonly tiles?: 0 | 1 | 3;
  /** Whether distance metric and jitter apply. */
  readonly cellular?: boolean;
  /**
   * One octave at a moment of the loop. It closes by construction: the field at f = N is the field at f = 0. Mean 0,
   * nominally −1…1.
   *
   * @param seed integer; another seed gives another pattern
   * @param rate ≥ 0: how much it changes in a loop; 0 stands still
   */
  field(seed: number, rate: number, clock: Clock, options?: NoiseOptions): Field;
}
