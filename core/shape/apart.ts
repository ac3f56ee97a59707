import { perConnectivity, type Connectivity, type Mesh } from './mesh';

/** Every face with its own vertices. */
export const apartConnectivity: (c: Connectivity) => Connectivity = perConnectivity((c: Connectivity): Connectivity => {
  const corners = Uint32Array.from({ length: c.corners.length }, (_, i) => i);
  return { ...c, vertexCount: corners.length, corners, shadingGroups: undefined, curves: undefined };
});

/** A shape split into separate faces, so that per-vertex values refer to one face. */
export function apart({ connectivity: c, positions: p }: Mesh): Mesh {
  const positions = new Float32Array(3 * c.corners.length);
  for (let i = 0; i < c.corners.length; i++) for (let k = 0; k < 3; k++) positions[3 * i + k] = p[3 * c.corners[i] + k];
  return { connectivity: apartConnectivity(c), positions };
}
