/** Motions as they stand in documents. What they mean is told in core/time. */

/** How a value goes from one key to the next. */
export type Segment = 'hold' | 'linear' | 'ease' | 'free' | 'smooth' | 'spline';

/** One key. Keys live on a circle: after the last comes the first again, `adds` higher. */
export interface KeyDoc {
  /** Place in the loop, 0 ≤ at < 1. */
  readonly at: number;
  readonly value: number;
  /** The way to the next key. */
  readonly to: Segment;
  /** 'ease': shares 0…1 of the way in which it speeds up and slows down. */
  readonly ease?: readonly [number, number];
  /** 'free': the tangent that leaves this key, as share of the loop (≥ 0) and change of value. */
  readonly out?: readonly [number, number];
  /** The tangent by which a free segment comes in, as share of the loop (≤ 0) and change of value. */
  readonly in?: readonly [number, number];
  /** Tangents that may point apart from each other. */
  readonly broken?: boolean;
}

/** How a motion is laid over the loop; see timing.ts. Everything may be left out. */
export interface TimingDoc {
  /** Later by this share of the loop. */
  readonly shift?: number;
  readonly way?: 'on' | 'back' | 'there' | 'sway';
  /** A whole number of rounds in the loop, ≥ 1. */
  readonly times?: number;
  /** Share of the loop, 0…0.95, round the seam in which it stands still. */
  readonly rest?: number;
}

/** A motion added to or multiplied with what stands before it on the same value. */
export interface LayerDoc {
  readonly how: 'add' | 'multiply';
  readonly on: boolean;
  readonly motion: MotionDoc;
}

/** A moving value as stored: which kind, and that kind's settings. */
export interface MotionDoc {
  readonly motion: string;
  readonly timing?: TimingDoc;
  /** In the order in which they act. */
  readonly layers?: readonly LayerDoc[];
  /** The maker wants the pause or change of speed at the seam, so the seam check does not bring it up. */
  readonly seamMeant?: boolean;
  readonly [setting: string]: unknown;
}
