/** Motions as documents store them; core/time evaluates them. */

/** Interpolation from one key to the next. */
export type Segment = 'hold' | 'linear' | 'ease' | 'free' | 'smooth' | 'spline';

/** A key. Keys live on a circle: the last leads to the first again, `adds` higher. */
export interface KeyDoc {
  /** Position in the loop, 0 ≤ at < 1. */
  readonly at: number;
  readonly value: number;
  /** Interpolation to the next key. */
  readonly to: Segment;
  /** 'ease': shares 0…1 of the segment in which it accelerates and decelerates. */
  readonly ease?: readonly [number, number];
  /** 'free': outgoing tangent, as share of the loop (≥ 0) and change of value. */
  readonly out?: readonly [number, number];
  /** Incoming tangent of a free segment, as share of the loop (≤ 0) and change of value. */
  readonly in?: readonly [number, number];
  /** Both tangents may point in different directions. */
  readonly broken?: boolean;
}

/** How a motion is laid over the loop; see timing.ts. Every field is optional. */
export interface TimingDoc {
  /** Delay, as a share of the loop. */
  readonly shift?: number;
  readonly way?: 'on' | 'back' | 'there' | 'sway';
  /** Repetitions per loop, a whole number ≥ 1. */
  readonly times?: number;
  /** Share of the loop, 0…0.95, around the seam in which it rests. */
  readonly rest?: number;
}

/** A motion added to or multiplied with the value so far. */
export interface LayerDoc {
  readonly how: 'add' | 'multiply';
  readonly on: boolean;
  readonly motion: MotionDoc;
}

/** A moving value as stored: its kind, and the settings of that kind. */
export interface MotionDoc {
  readonly motion: string;
  readonly timing?: TimingDoc;
  /** In order of evaluation. */
  readonly layers?: readonly LayerDoc[];
  /** The pause or change of speed at the seam is intended: the seam check does not report it. */
  readonly seamMeant?: boolean;
  readonly [setting: string]: unknown;
}
