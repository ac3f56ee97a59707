import type { Clock } from '../time/loop';
import type { Field } from './gradients';

/** A kind of noise, declared once. */
export interface NoiseKind {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  /**
   * One octave at a moment of the loop. It closes by construction: the field at f = N is the
   * field at f = 0. Mean 0, nominally −1…1.
   *
   * @param seed whole number; another one gives another pattern
   * @param rate ≥ 0: how much it changes in a loop; 0 stands still
   */
  field(seed: number, rate: number, clock: Clock): Field;
}
