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

/** A surface point as a pattern sees it. What a pattern does not read is not computed. */
export interface Hit<N> {
  /** In metres, in object space: the same for all copies. */
  readonly form: Triple<N>;
  /** In metres, in world space. */
  readonly room: Triple<N>;
  /** Texture coordinates (UV), 0…1 once round. */
  readonly uv: readonly [N, N];
  /** |cosine| between normal and view direction: 1 facing the camera, 0 at the silhouette. */
  readonly facing: N;
  /** Distance from the camera in metres. */
  readonly depth: N;
  /** Ambient occlusion: 0 in the open, 1 in the deepest crevice. */
  readonly occlusion: N;
  /** For what is not a copy: order 0, id 0, and the object's position. */
  readonly copy: {
    /** Position in the repeat, 0…1. */
    readonly order: N;
    /** Integer that seeds its random values. */
    readonly id: N;
    /** Its position in metres. */
    readonly at: Triple<N>;
  };
}

/** Values of a pattern in its arithmetic: numbers converted, choices as they are. */
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
 * The pattern's noise at a position in metres, nominally −1…1; for a picture, its brightness 0…1 whatever the position.
 */
export type NoiseRead<N> = (at: Triple<N>) => N;

/** The picture that a pattern shows. */
export interface PatternImage<P extends Params> {
  /** SHA-256; empty for none. */
  file(values: Evaluated<P>): string;
  /** When it is recoloured by a ramp. */
  readonly coloured: When;
  /** Whether it shows its own colours on a colour channel. */
  own(values: Evaluated<P>): boolean;
  /** The picture coordinates of a surface point: 0…1 from left to right and from bottom to top, repeating beyond. */
  at<N>(m: Maths<N>, hit: Hit<N>, values: PatternInputs<P, N>): readonly [N, N];
}

/** How a value may vary over a surface, declared once in its own file. */
export interface PatternKind<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Path data of a drawing, 24 × 24, or the name of one in `web/ui/parts/icons.tsx`. */
  readonly icon: string;
  /** Numbers and vectors become uniforms and may move; choices are compiled in. */
  readonly params: P;
  /** Periodic, as an angle is, so that its ramp should close. */
  readonly round?: boolean;
  /** It reads ambient occlusion, which has to be computed for every shape. */
  readonly occlusion?: boolean;
  /** The noise it reads, if any. */
  noise?(values: Evaluated<P>): NoiseSettings;
  /** The picture it shows, if any. */
  readonly image?: PatternImage<P>;
  /** Whether it changes while its values stand still. */
  readonly reads?: Pick<Reads<P>, 'clock'>;
  /** Height of the pattern at a point, nominally 0…1: 0 shows the first colour or number, 1 the last. */
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
