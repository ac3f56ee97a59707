import type { Evaluated, Params } from './params';

/** Always, or by the values at the moment. A method, so that a step of any parameters is a step. */
type When<P extends Params> = true | { when(values: Evaluated<P>): boolean }['when'];

/**
 * What the result of a step depends on besides its own values at the moment, the shape that comes in, and the shapes of
 * ribbons that it names, as they are at the moment. From this alone follows what a step is given (StepContext), and
 * what stands in the key of its result: what it does not declare it cannot come to, so that a key cannot leave it out.
 */
export interface Reads<P extends Params = Params> {
  /** The moment itself: the result changes though all values stand still (noise with a rate, something that travels). */
  readonly clock?: When<P>;
  /** Other moments: its own values, the shape that comes in, or ribbons that it names, elsewhere in the loop. */
  readonly loop?: When<P>;
  /** Whether the draft or the final detail is asked for. */
  readonly detail?: true;
  /** Copies that come in as the list that they are: it decides by itself what to do with them. */
  readonly copies?: true;
}

/** Whether a step reads the clock, or other moments, with these values. */
export function readsNow<P extends Params>(
  reads: Reads<P> | undefined,
  what: 'clock' | 'loop',
  values: Evaluated<P>,
): boolean {
  const when = reads?.[what];
  return when === true || (when?.(values) ?? false);
}
