import type { AirAt } from '@maypole/core/scene/kind';
import { cameraPosition, exp, float, fog, max, positionWorld, select, uniform } from 'three/tsl';
import { Color, type Node } from 'three/webgpu';

/**
 * Air that takes light away and puts its own colour in its place: of e^{−σd} of the light after d
 * metres (Beer–Lambert). Where the extinction falls off with height, the optical depth along the ray
 * is its integral in closed form, σ·d·(e^{−a} − e^{−b})/(b − a) for heights a and b at its ends over
 * the scale height.
 */
export class Air {
  private readonly colour = uniform(new Color());
  private readonly extinction = uniform(0);
  private readonly begins = uniform(0);
  private readonly height = uniform(1);
  private readonly ground = uniform(0);
  private readonly even = this.made(false);
  private readonly layered = this.made(true);

  /** What the materials of a scene take as their fog; null where the air is clear. The numbers are uniforms, so that changing them compiles nothing. */
  node(list: readonly AirAt[]): Node | null {
    const air = list.find((a) => a.type === 'fog');
    if (!air) return null;
    this.colour.value.set(air.colour);
    this.extinction.value = air.extinction;
    this.begins.value = air.begins;
    this.height.value = Math.max(1e-3, air.height);
    this.ground.value = air.ground;
    return air.height > 0 ? this.layered : this.even;
  }

  private made(layered: boolean): Node {
    const way = positionWorld.sub(cameraPosition);
    const through = max(way.length().sub(this.begins), float(0));
    let depth: Node<'float'> = through.mul(this.extinction) as Node<'float'>;
    if (layered) {
      const low = cameraPosition.y.sub(this.ground).div(this.height);
      const high = positionWorld.y.sub(this.ground).div(this.height);
      const rise = high.sub(low);
      // On the level the integral is the density there.
      const mean = select(
        rise.abs().lessThan(1e-3),
        exp(low.negate()),
        exp(low.negate()).sub(exp(high.negate())).div(rise),
      );
      depth = depth.mul(mean) as Node<'float'>;
    }
    const lost = float(1).sub(exp(depth.negate()));
    return fog(this.colour, lost);
  }
}
