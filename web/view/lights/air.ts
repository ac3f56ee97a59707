import type { AirAt } from '@maypole/core/scene/kind';
import {
  cameraPosition,
  clamp,
  dot,
  exp,
  float,
  Fn,
  max,
  mix,
  output,
  positionWorld,
  select,
  sqrt,
  uniform,
  vec4,
} from 'three/tsl';
import { Color, Vector3, type Node, type NodeBuilder } from 'three/webgpu';
import type { Extent } from '../stage/extent';
import { rgb, scalar, type Rgb, type Scalar } from '../surfaces/tsl';

/**
 * Density of air as nodes: extinction per metre; if it falls off with height, over how many metres and from where; 0
 * for uniform.
 */
interface Thickness {
  readonly extinction: Node;
  readonly height: Node;
  readonly ground: Node;
}

/**
 * Optical depth between two points. If the extinction σ falls off with height, its integral is σ·d·(e^{−a} − e^{−b})/(b
 * − a) for heights a and b over the falloff height.
 */
export function opticalDepth(metres: Scalar, from: Rgb, to: Rgb, air: Thickness): Scalar {
  const over = max(air.height as Scalar, 1e-3);
  const [low, high] = [from, to].map((p) => p.y.sub(air.ground as Scalar).div(over));
  const rise = high.sub(low);
  // At equal heights the integral is the density there.
  const mean = select(
    rise.abs().lessThan(1e-3),
    exp(low.negate()),
    exp(low.negate()).sub(exp(high.negate())).div(rise),
  );
  const thin = select((air.height as Scalar).greaterThan(0), mean, float(1));
  return scalar(metres.mul(air.extinction as Scalar).mul(thin));
}

/** The point that is lit: of a surface, or of a ray in haze. */
const lit = Fn(
  (builder: NodeBuilder) => (builder.context as { positionWorld?: Rgb }).positionWorld ?? positionWorld,
) as (..._: never[]) => Rgb;

/** Numbers of one kind of air as uniforms, so that changing them compiles nothing. */
class AirNumbers implements Thickness {
  readonly colour = uniform(new Color());
  readonly extinction = uniform(0);
  readonly begins = uniform(0);
  readonly height = uniform(0);
  readonly ground = uniform(0);

  fill(air: AirAt): void {
    this.colour.value.set(air.colour);
    this.extinction.value = air.extinction;
    this.begins.value = air.type === 'fog' ? air.begins : 0;
    this.height.value = air.height;
    this.ground.value = air.ground;
  }

  /** Bounding sphere of haze; see Haze. */
  readonly middle = uniform(new Vector3());
  readonly reach = uniform(1);

  /** Share of a point's light that is lost on its way to the camera (Beer–Lambert: e^{−τ} remains). */
  lost(within: boolean): Scalar {
    const way = rgb(positionWorld.sub(cameraPosition));
    const begins = within ? scalar(max(this.chord(rgb(cameraPosition), way).enters, float(0))) : this.begins;
    const through = scalar(max(way.length().sub(begins), float(0)));
    return scalar(float(1).sub(exp(opticalDepth(through, rgb(cameraPosition), rgb(positionWorld), this).negate())));
  }

  /**
   * Optical depth between two points. Fog is there up to the camera for the light of lamps: what begins later is for
   * looking alone.
   */
  between(from: Rgb, to: Rgb, within: boolean): Scalar {
    const way = rgb(to.sub(from));
    const length = scalar(way.length());
    if (!within) return opticalDepth(length, from, to, this);
    const { ahead, enters, leaves } = this.chord(from, way);
    const [near, far] = [enters, leaves].map((t) => scalar(clamp(t, float(0), length)));
    const point = (t: Scalar) => rgb(from.add(ahead.mul(t)));
    return opticalDepth(scalar(far.sub(near)), point(near), point(far), this);
  }

  /**
   * Distances at which a line enters and leaves the sphere of haze, negative behind its start; beside the sphere both
   * are those of its nearest point.
   */
  private chord(from: Rgb, way: Rgb): { readonly ahead: Rgb; readonly enters: Scalar; readonly leaves: Scalar } {
    const ahead = rgb(way.div(max(way.length(), float(1e-6))));
    const middle = rgb(this.middle.sub(from));
    const nearest = scalar(dot(middle, ahead));
    const inside = this.reach.mul(this.reach).sub(dot(middle, middle).sub(nearest.mul(nearest)));
    const half = scalar(sqrt(max(inside, float(0))));
    return { ahead, enters: scalar(nearest.sub(half)), leaves: scalar(nearest.add(half)) };
  }
}

/** The kinds of air of a scene, by which shaders are compiled. */
export const airKinds = (list: readonly AirAt[]): string =>
  (['fog', 'haze'] as const).filter((kind) => list.some((a) => a.type === kind)).join(' ');

/**
 * Extinction by air: fog replaces light with its own colour; in-scattering by haze is drawn in front of everything, see
 * Haze.
 */
export class Air {
  private readonly fog = new AirNumbers();
  private readonly haze = new AirNumbers();
  private readonly made = new Map<string, Node>();

  /**
   * Transmittance of the air between a point of a lamp and what it lights (Beer–Lambert: e^{−τ} remains); null in clear
   * air. Suns and the environment are defined by what arrives, as in true light.
   */
  transmittance(from: { readonly value: Vector3 }, list: readonly AirAt[]): Scalar | null {
    const kinds = airKinds(list);
    const between = (air: AirNumbers, within: boolean) => air.between(lit(), rgb(from), within);
    const depths = [
      ...(kinds.includes('fog') ? [between(this.fog, false)] : []),
      ...(kinds.includes('haze') ? [between(this.haze, true)] : []),
    ];
    return depths.length > 0 ? scalar(exp(depths.reduce((a, b) => scalar(a.add(b))).negate())) : null;
  }

  /** The fog node for the materials of a scene; null in clear air. */
  node(list: readonly AirAt[], extent: () => Extent): Node | null {
    const fog = list.find((a) => a.type === 'fog');
    const haze = list.find((a) => a.type === 'haze');
    if (fog) this.fog.fill(fog);
    if (haze) {
      const { centre, radius } = extent();
      this.haze.fill(haze);
      this.haze.middle.value.set(...centre);
      this.haze.reach.value = Math.max(haze.reach, radius);
    }
    const key = airKinds(list);
    if (key === '') return null;
    let node = this.made.get(key);
    if (!node) this.made.set(key, (node = this.make(Boolean(fog), Boolean(haze))));
    return node;
  }

  private make(fog: boolean, haze: boolean): Node {
    const foggy = fog ? mix(output.rgb, rgb(this.fog.colour), this.fog.lost(false)) : output.rgb;
    return vec4(haze ? foggy.mul(float(1).sub(this.haze.lost(true))) : foggy, output.a);
  }
}
