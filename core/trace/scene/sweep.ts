import type { Surfaces } from '../../finish/finish';
import { PLAIN_SURFACE } from '../../finish/surface';
import { sweepShape } from '../../scene/grounds/sweep-shape';
import type { GroundAt } from '../../scene/kind';
import type { TraceMesh } from './trace-mesh';

type Sweep = Extract<GroundAt, { type: 'sweep' }>;

/** A studio sweep as a mesh. */
export function sweepDrawn({ back, curve }: Sweep): TraceMesh {
  const shape = sweepShape(back, curve);
  return { ...shape, kinds: new Uint8Array(shape.triangles.length / 3) };
}

export function sweepSurfaces({ colour, roughness }: Sweep): Surfaces {
  return { 0: { ...PLAIN_SURFACE, baseColor: colour, roughness } };
}

/** Its column-major matrix: rotated about the vertical axis. */
export function sweepMatrix({ height, turn }: Sweep): number[] {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return [c, 0, -s, 0, 0, 1, 0, 0, s, 0, c, 0, 0, height, 0, 1];
}
