import type { Surface } from '@maypole/core/finish/surface';
import {
  cross,
  dFdx,
  dFdy,
  dot,
  float,
  max,
  normalView,
  normalize,
  positionGeometry,
  positionView,
  vec3,
} from 'three/tsl';
import type { MeshPhysicalNodeMaterial, Node } from 'three/webgpu';
import { rgb, type Rgb, type Scalar } from './tsl';

const AXES = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;

/**
 * Direction of grooves at a point, in view space. It is known in object space; screen-space derivatives of the position
 * span the face's plane in both, which carries it over however the shape is transformed and repeated.
 */
function groovesView({ way, axis }: Surface['grooves']): Rgb {
  const upright = vec3(...AXES[axis]);
  const wanted = way === 'round' ? cross(upright, positionGeometry) : upright;
  const [fx, fy] = [dFdx(positionGeometry), dFdy(positionGeometry)];
  const [vx, vy] = [dFdx(positionView), dFdy(positionView)];
  // Least squares: wanted ≈ a·fx + b·fy.
  const [xx, xy, yy] = [dot(fx, fx), dot(fx, fy), dot(fy, fy)];
  const [wx, wy] = [dot(wanted, fx), dot(wanted, fy)];
  // The common denominator does not change the direction, and may be 0.
  const a = wx.mul(yy).sub(wy.mul(xy));
  const b = wy.mul(xx).sub(wx.mul(xy));
  const along = vx.mul(a).add(vy.mul(b)).toVar();
  const flat = along.sub(normalView.mul(dot(along, normalView)));
  return rgb(flat.div(max(flat.length(), float(1e-20))));
}

interface Assigned {
  readonly targetNode?: { readonly name?: string };
  sourceNode?: Node;
}

/**
 * Anisotropy for a material. The library takes the direction from uv, which not every shape has: its variables are
 * replaced while the shader is built.
 */
export function groove(material: MeshPhysicalNodeMaterial, grooves: Surface['grooves'], turn: Scalar): void {
  const own = material as object as {
    setupVariants(builder: { readonly stack: { readonly nodes: readonly Assigned[] } }): void;
  };
  const usual = own.setupVariants.bind(material);
  own.setupVariants = (builder) => {
    usual(builder);
    const along = groovesView(grooves).toVar();
    const across = cross(normalView, along);
    const tangent = normalize(along.mul(turn.cos()).add(across.mul(turn.sin()))).toVar();
    const found = { AnisotropyT: tangent, AnisotropyB: normalize(cross(normalView, tangent)) };
    let replaced = 0;
    for (const node of builder.stack.nodes) {
      const name = node.targetNode?.name as keyof typeof found | undefined;
      if (!name || !(name in found)) continue;
      node.sourceNode = found[name] as Node;
      replaced++;
    }
    if (replaced !== 2) throw new Error('The library no longer says where highlights are drawn out to.');
  };
}
