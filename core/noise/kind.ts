import type { Clock } from '../time/loop';

/** A scalar field in space; nominally −1…1 with mean 0. */
export type Field = (x: number, y: number, z: number) => number;

/** How distances between points are measured in cellular noise. */
export type Metric = 'euclidean' | 'manhattan' | 'chebyshev';

/** What a kind may need to know besides seed, rate and moment. */
export interface NoiseOptions {
  /**
   * Lattice cells after which the pattern repeats along each axis, less one: a power of two less
   * one, at most 255. Noise that travels by whole tiles has small ones.
   */
  readonly mask: number;
  /** Cellular kinds only. */
  readonly metric: Metric;
  /** 0…1: how far feature points may lie from the middle of their cells. */
  readonly jitter: number;
}

export const USUAL_NOISE: NoiseOptions = { mask: 255, metric: 'euclidean', jitter: 1 };

/** A kind of noise, declared once. */
export interface NoiseKind {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  /**
   * How many times `mask` + 1 features lie between two places where the pattern is the same along
   * each axis: 1 on a square lattice, the usual; 3 on that of simplices; 0 where it never is, so that
   * the pattern cannot travel.
   */
  readonly tiles?: 0 | 1 | 3;
  /** True where distance measure and jitter matter. */
  readonly cellular?: boolean;
  /**
   * One octave at a moment of the loop. It closes by construction: the field at f = N is the
   * field at f = 0. Mean 0, nominally −1…1.
   *
   * @param seed whole number; another one gives another pattern
   * @param rate ≥ 0: how much it changes in a loop; 0 stands still
   */
  field(seed: number, rate: number, clock: Clock, options?: NoiseOptions): Field;
}
