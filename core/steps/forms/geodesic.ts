import { number } from '../../declare/params';
import { ballUv } from '../../shape/attributes';
import { connectivityStore, meshOf } from '../../shape/builder';
import { uniformConnectivity, type Connectivity } from '../../shape/mesh';
import { brief, checkFaces, defineStep, formatCount } from '../step';
import { stretch, stretched } from './stretch';

/** The regular icosahedron: vertices are the cyclic permutations of (0, ±1, ±φ). */
const PHI = (1 + Math.sqrt(5)) / 2;
const CORNERS: readonly (readonly [number, number, number])[] = [
  [-1, PHI, 0],
  [1, PHI, 0],
  [-1, -PHI, 0],
  [1, -PHI, 0],
  [0, -1, PHI],
  [0, 1, PHI],
  [0, -1, -PHI],
  [0, 1, -PHI],
  [PHI, 0, -1],
  [PHI, 0, 1],
  [-PHI, 0, -1],
  [-PHI, 0, 1],
];
const FACES: readonly (readonly [number, number, number])[] = [
  [0, 11, 5],
  [0, 5, 1],
  [0, 1, 7],
  [0, 7, 10],
  [0, 10, 11],
  [1, 5, 9],
  [5, 11, 4],
  [11, 10, 2],
  [10, 7, 6],
  [7, 1, 8],
  [3, 9, 4],
  [3, 4, 2],
  [3, 2, 6],
  [3, 6, 8],
  [3, 8, 9],
  [4, 9, 5],
  [2, 4, 11],
  [6, 2, 10],
  [8, 6, 7],
  [9, 8, 1],
];

interface Unit {
  readonly connectivity: Connectivity;
  /** Points on the unit sphere. */
  readonly directions: Float64Array;
}
const store = connectivityStore();
const units = new WeakMap<Connectivity, Unit>();

/** Class I geodesic subdivision: n parts per edge, 20·n² triangles, 10·n² + 2 vertices. */
function divide(n: number): Unit {
  const directions = new Float64Array((10 * n * n + 2) * 3);
  const ids = new Map<string, number>();
  const vertexAt = (weights: readonly [number, number][]): number => {
    const used = weights.filter(([, w]) => w > 0).sort((a, b) => a[0] - b[0]);
    const key = used.map(([v, w]) => `${v}:${w}`).join(' ');
    let id = ids.get(key);
    if (id === undefined) {
      id = ids.size;
      ids.set(key, id);
      let [x, y, z] = [0, 0, 0];
      for (const [v, w] of used) {
        x += CORNERS[v][0] * w;
        y += CORNERS[v][1] * w;
        z += CORNERS[v][2] * w;
      }
      const l = Math.hypot(x, y, z);
      directions.set([x / l, y / l, z / l], id * 3);
    }
    return id;
  };
  const corners: number[] = [];
  for (const [a, b, c] of FACES) {
    const at = (i: number, j: number) =>
      vertexAt([
        [a, n - i - j],
        [b, i],
        [c, j],
      ]);
    for (let i = 0; i < n; i++)
      for (let j = 0; i + j < n; j++) {
        corners.push(at(i, j), at(i + 1, j), at(i, j + 1));
        if (i + j < n - 1) corners.push(at(i + 1, j), at(i + 1, j + 1), at(i, j + 1));
      }
  }
  const connectivity = uniformConnectivity(directions.length / 3, 3, Uint32Array.from(corners));
  return { connectivity: { ...connectivity, uv: ballUv(connectivity, directions) }, directions };
}

/** A sphere of nearly equal triangles, without poles. */
export const geodesic = defineStep({
  kind: 'geodesic',
  title: 'Geodesic sphere',
  help: 'A ball of nearly equal triangles, without poles.',
  icon: 'geodesic',
  group: 'form',
  params: {
    radius: number('Radius', 1, 'From the centre to the surface.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    frequency: number('Edge parts', 16, 'Parts each of the thirty first edges is cut into.', {
      min: 1,
      max: 300,
      soft: [1, 64],
      integer: true,
    }),
    stretch,
  },
  summary: (v) => `${brief(v.radius)} m · ${formatCount(20 * v.frequency ** 2)} faces`,
  evaluate(v) {
    checkFaces(20 * v.frequency ** 2, 'Use fewer edge parts.');
    const connectivity = store(`${v.frequency}`, () => {
      const unit = divide(v.frequency);
      units.set(unit.connectivity, unit);
      return unit.connectivity;
    });
    const { directions } = units.get(connectivity)!;
    return stretched(
      meshOf(
        connectivity,
        Float32Array.from(directions, (x) => x * v.radius),
      ),
      v.stretch,
    );
  },
});
