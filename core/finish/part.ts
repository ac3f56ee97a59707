import { widened } from '../declare/widen';
import type { ColourParam, Evaluated, NumberParam, Params } from '../declare/params';
import type { Channel, Surface, SurfaceFeature } from './surface';

/** The channel that a value of a part sets, and the factor from its unit to the channel's. */
export type ChannelOf = Channel | readonly [Channel, number];

/** A part of a finish, declared once in its own file. Panel, document, lanes, seam check and reference follow. */
export interface FinishPart<P extends Params = Params> {
  readonly kind: string;
  readonly title: string;
  /** One plain sentence. */
  readonly help: string;
  /** Name of a drawing in `web/ui/parts/icons.tsx`, or path data of one of its own, 24 × 24: "M4 12h16". */
  readonly icon: string;
  readonly params: P;
  /** What a renderer must support for it. */
  readonly feature?: SurfaceFeature;
  /** Values that may be patterned, with their channels and the factor from their unit. */
  readonly channels?: { readonly [K in keyof P]?: ChannelOf };
  /**
   * The channels it sets, from its values at a moment. Parts apply in order, each to what the ones before have left.
   */
  surface(values: Evaluated<P>, before: Surface): Partial<Omit<Surface, 'features' | 'patterns'>>;
}

/**
 * Declares a part of a finish.
 *
 * @example
 * export const metal = definePart({
 *   kind: 'metal',
 *   title: 'Metal',
 *   help: 'How much the surface is bare metal.',
 *   icon: 'magnet',
 *   params: { metalness: number('Metalness', 0, 'From plastic to metal.', { unit: '%', min: 0, max: 100 }) },
 *   surface: (v) => ({ metalness: v.metalness / 100 }),
 * });
 */
export function definePart<const P extends Params>(part: FinishPart<P>): FinishPart {
  return widened(part);
}

/** The channel of a part's value if it may be patterned; undefined if not. */
export function channelOf(
  part: FinishPart,
  value: string,
): { readonly channel: Channel; readonly factor: number; readonly target: NumberParam | ColourParam } | undefined {
  const of = part.channels?.[value];
  const target = part.params[value];
  if (!of || (target?.type !== 'number' && target?.type !== 'colour')) return undefined;
  const [channel, factor] = typeof of === 'string' ? [of, 1] : of;
  return { channel, factor, target };
}
