import type { Reads } from '../declare/reads';
import { widened } from '../declare/widen';
import type {
  AssetParam,
  ChoiceParam,
  Evaluated,
  NumberParam,
  Params,
  SwitchParam,
  VectorParam,
  When,
} from '../declare/params';
import type { NoiseSettings } from '../noise/noise';
import type { Maths } from './maths';

/** Three numbers for x, y and z. */
export type Triple<N> = readonly [N, N, N];

/**
 * A place on a surface, as a pattern is asked about it. What a pattern does not look at is not
 * worked out.
 */
export interface Hit<N> {
  /** In metres, in the space of the form: copies all have the same. */
  readonly form: Triple<N>;
  /** In metres, where it stands in the picture. */
  readonly room: Triple<N>;
  /** Place on the surface (UV), 0…1 once round. */
  readonly uv: readonly [N, N];
  /** |cosine| between the surface and the way to the eye: 1 where it is seen straight on, 0 at its rim. */
  readonly facing: N;
  /** Metres from the camera. */
  readonly depth: N;
  /** 0 in the open, 1 in the deepest crevice. */
  readonly occlusion: N;
  /** Of what is no copy: 0, nowhere but where the form stands, and number 0. */
  readonly copy: {
    /** Place in the repeat, 0…1. */
    readonly order: N;
    /** A whole number that chance tells it by. */
    readonly id: N;
    /** Where it stands, in metres. */
    readonly at: Triple<N>;
  };
}

/** Values of a pattern on their way into its arithmetic: numbers as such, what is chosen as it is. */
export type PatternInputs<P extends Params, N> = {
  readonly [K in keyof P]: P[K] extends NumberParam
    ? N
    : P[K] extends VectorParam
      ? Triple<N>
      : P[K] extends AssetParam
        ? string
        : P[K] extends ChoiceParam<infer V>
          ? V
          : P[K] extends SwitchParam
            ? boolean
            : never;
};

/**
 * A value of the pattern's own noise at a place in metres, nominally −1…1; of a pattern of a picture, its
 * brightness there 0…1, wherever is asked.
 */
export type NoiseRead<N> = (at: Triple<N>) => N;

/** The picture that a pattern shows. */
export interface PatternImage<P extends Params> {
  /** Fingerprint; empty for none. */
  file(values: Evaluated<P>): string;
  /** When colours are chosen for it in place of its own. */
  readonly coloured: When;
  /** It is shown in its own colours where it lies on a colour. */
  own(values: Evaluated<P>): boolean;
  /** Where of the picture a place of the surface is: 0…1 from left to right and from bottom to top, and on and on beyond. */
  at<N>(m: Maths<N>, hit: Hit<N>, values: PatternInputs<P, N>): readonly [N, N];
}

/** How a value may go over a surface, declared once in a file of its own. */
export interface PatternKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Path data of a drawing, 24 × 24, or the name of one in `web/ui/parts/icons.tsx`. */
  readonly icon: string;
  /** Numbers and vectors move without anything being compiled anew; what is chosen decides what is compiled. */
  readonly params: P;
  /** It comes round by itself, as an angle does, so that its colours do best to close. */
  readonly round?: boolean;
  /** It goes by how deep faces lie, which has to be found out for every shape. */
  readonly occlusion?: boolean;
  /** The noise it reads, where it reads one. */
  noise?(values: Evaluated<P>): NoiseSettings;
  /** The picture it shows, where it shows one. */
  readonly image?: PatternImage<P>;
  /** Whether it changes while its values stand still. */
  readonly reads?: Pick<Reads<P>, 'clock'>;
  /** How high the pattern stands at a place, nominally 0…1: 0 shows the first colour or number, 1 the last. */
  height<N>(m: Maths<N>, hit: Hit<N>, values: PatternInputs<P, N>, noise: NoiseRead<N>): N;
}

/**
 * Declares a pattern.
 *
 * @example
 * export const depth = definePattern({
 *   kind: 'depth',
 *   title: 'Depth',
 *   help: 'By the distance from the camera.',
 *   icon: 'M4 12h16',
 *   params: { far: number('Far', 10, 'Where it ends.', { unit: 'm', min: 0.01 }) },
 *   height: (m, hit, v) => m.div(hit.depth, v.far),
 * });
 */
export function definePattern<const P extends Params>(pattern: PatternKind<P>): PatternKind {
  return widened(pattern);
}
