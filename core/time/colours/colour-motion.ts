import type { ColourValue, Evaluated, Params } from '../../declare/params';
import type { Clock } from '../loop';
import type { Course } from '../motion';

/** A prepared colour motion. */
export interface PreparedColour {
  /** '#rrggbb' at a moment. */
  colour(clock: Clock): string;
  readonly course: Course;
}

/** A kind of colour motion, declared once. */
export interface ColourMotionKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  readonly help: string;
  readonly params: P;
  start(colour: string): Evaluated<P>;
  prepare(settings: Evaluated<P>, frames: number, prepareOther: (value: ColourValue) => PreparedColour): PreparedColour;
}

export function defineColourMotion<const P extends Params>(kind: ColourMotionKind<P>): ColourMotionKind<P> {
  return kind;
}
