import type { MeshoptSimplifier } from 'meshoptimizer';
import { keepFaces, gather } from './faces';
import { uniformConnectivity, type Mesh } from './mesh';
import { triangulated } from './triangulated';

let library: typeof MeshoptSimplifier | null = null;

export async function loadDecimation(): Promise<void> {
  if (library) return;
  const { MeshoptSimplifier: made } = await import('meshoptimizer');
  await made.ready;
  library = made;
}

export function decimationLoaded(): boolean {
  return library !== null;
}

/** About a share 0…1 of the triangles, by edge collapses of least quadric error (library meshoptimizer). */
export function decimated(mesh: Mesh, share: number): Mesh {
  const fine = triangulated(mesh);
  const { corners, vertexCount } = fine.connectivity;
  const target = 3 * Math.max(1, Math.round((corners.length / 3) * share));
  const [indices] = library!.simplify(corners, fine.positions, 3, Math.min(corners.length, target), 1e6);
  const { connectivity, from } = keepFaces(uniformConnectivity(vertexCount, 3, indices), () => true);
  return { connectivity, positions: gather(fine.positions, from) };
}
