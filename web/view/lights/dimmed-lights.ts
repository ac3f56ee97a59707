import { uniform } from 'three/tsl';
import {
  PointLight,
  PointLightNode,
  RectAreaLightNode,
  SpotLight,
  SpotLightNode,
  Vector3,
  type Light,
  type NodeBuilder,
} from 'three/webgpu';
import { AreaLight } from './area-light';
import { rgb, type Scalar } from '../surfaces/tsl';

/**
 * Lamps whose light the air may dim on its way. The library's own hook for a lamp's colour means another thing for a
 * spot (a projected picture), so that each kind of lamp has a light node here that multiplies what arrives.
 */
interface Dimmable {
  /** The point of the lamp that shines in this sub-frame. */
  readonly from: { readonly value: Vector3 };
  /** Transmittance between that point and what is lit, 0…1; null in clear air. Set before the first picture. */
  transmittance: Scalar | null;
}

type Arriving = { lightColor: unknown } | undefined;

/** What arrives of the light of a lamp. */
function arriving<T extends Arriving>(light: Light | null, data: T): T {
  const { transmittance } = light as Light & Dimmable;
  return data && transmittance ? { ...data, lightColor: rgb(data.lightColor).mul(transmittance) } : data;
}

class DimmedPointNode extends PointLightNode {
  override setupDirect(builder: NodeBuilder) {
    return arriving(this.light, super.setupDirect(builder));
  }
}

class DimmedSpotNode extends SpotLightNode {
  override setupDirect(builder: NodeBuilder) {
    return arriving(this.light, super.setupDirect(builder));
  }
}

class DimmedAreaNode extends RectAreaLightNode {
  override setupDirectRectArea(builder: NodeBuilder) {
    return arriving(this.light, super.setupDirectRectArea(builder));
  }
}

export class DimmedPoint extends PointLight implements Dimmable {
  readonly from = uniform(new Vector3());
  transmittance: Scalar | null = null;
}

export class DimmedSpot extends SpotLight implements Dimmable {
  readonly from = uniform(new Vector3());
  transmittance: Scalar | null = null;
}

export class DimmedArea extends AreaLight implements Dimmable {
  readonly from = uniform(new Vector3());
  transmittance: Scalar | null = null;
}

DimmedPoint.registerNode(DimmedPointNode);
DimmedSpot.registerNode(DimmedSpotNode);
DimmedArea.registerNode(DimmedAreaNode);
