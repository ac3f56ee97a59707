import { Fn } from 'three/tsl';
import { WebGPUCoordinateSystem, type Node } from 'three/webgpu';
import { scalar, type Scalar } from '../surfaces/tsl';

/** Depth buffer value, 0…1, of a point in clip space: WebGL has depths from −1 there, WebGPU from 0. */
export function clipDepth(clip: Node<'vec4'>): Scalar {
  const node = Fn(((builder: { readonly renderer: { readonly coordinateSystem: number } }) => {
    const depth = clip.z.div(clip.w);
    return builder.renderer.coordinateSystem === WebGPUCoordinateSystem ? depth : depth.mul(0.5).add(0.5);
  }) as never) as unknown as () => unknown;
  return scalar(node());
}
