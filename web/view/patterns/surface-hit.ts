import type { Hit } from '@maypole/core/pattern/kind';
import {
  attribute,
  normalViewGeometry,
  positionGeometry,
  positionView,
  positionViewDirection,
  positionWorld,
} from 'three/tsl';
import type { Node } from 'three/webgpu';
import { scalar, type Scalar } from '../surfaces/tsl';
import { shaderMaths as m } from './shader-maths';

/** Attributes that patterns may read, besides those of every shape. */
export const PATTERN_ATTRIBUTES = {
  /** Texture coordinates. */
  uv: 'patternUv',
  /** Ambient occlusion, 0…1. */
  crevice: 'crevice',
  /** Position of a copy, and its place in the repeat. */
  copyAt: 'copyAt',
  copyId: 'copyId',
} as const;

/** What a shape provides for patterns. */
export interface HitSource {
  readonly copies: boolean;
  readonly uv: boolean;
  readonly crevice: boolean;
}

/** A surface point as shader nodes. What is not read is not compiled. */
export class SurfaceHit implements Hit<Scalar> {
  /** What was read that not every shape has. */
  readonly reads = { uv: false, crevice: false };

  /** @param depth ambient occlusion, for shapes without vertices that could carry it */
  constructor(
    private readonly from: HitSource,
    private readonly deep?: Scalar,
  ) {}

  get form() {
    return triple(positionGeometry);
  }

  get room() {
    return triple(positionWorld);
  }

  get uv(): readonly [Scalar, Scalar] {
    this.reads.uv = true;
    if (!this.from.uv) return [m.number(0), m.number(0)];
    const uv = attribute<'vec2'>(PATTERN_ATTRIBUTES.uv, 'vec2');
    return [scalar(uv.x), scalar(uv.y)];
  }

  get facing(): Scalar {
    return scalar(normalViewGeometry.normalize().dot(positionViewDirection).abs());
  }

  get depth(): Scalar {
    return scalar(positionView.length());
  }

  get occlusion(): Scalar {
    if (this.deep) return this.deep;
    this.reads.crevice = true;
    return this.from.crevice ? scalar(attribute<'float'>(PATTERN_ATTRIBUTES.crevice, 'float')) : m.number(0);
  }

  get copy(): Hit<Scalar>['copy'] {
    if (!this.from.copies) return { order: m.number(0), id: m.number(0), at: [m.number(0), m.number(0), m.number(0)] };
    const at = attribute<'vec4'>(PATTERN_ATTRIBUTES.copyAt, 'vec4');
    const id = attribute<'float'>(PATTERN_ATTRIBUTES.copyId, 'float');
    return { order: scalar(at.w), id: scalar(id.round()), at: triple(at) };
  }
}

function triple(node: unknown): readonly [Scalar, Scalar, Scalar] {
  const { x, y, z } = node as Node<'vec3'>;
  return [scalar(x), scalar(y), scalar(z)];
}
