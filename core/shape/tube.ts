import { gridUv } from './attributes';
import { connectivityStore, meshOf } from './builder';
import { closedPath } from './closed-path';
import { uniformConnectivity, type Mesh } from './mesh';

const store = connectivityStore(24);

/**
 * A round pipe along a closed curve, its rings spread evenly along the way and square to it. Frames
 * turn as little as possible and close round the curve.
 *
 * @param radius of the pipe, for a share 0…1 of the way
 * @param along rings, @param round faces round the pipe
 */
export function closedTube(
  curve: (u: number) => readonly [number, number, number],
  radius: (share: number) => number,
  along: number,
  round: number,
): Mesh {
  const path = closedPath(curve);
  const connectivity = store(`${along}/${round}`, () => {
    const corners = new Uint32Array(along * round * 4);
    let k = 0;
    for (let i = 0; i < along; i++)
      for (let j = 0; j < round; j++) {
        const [i1, j1] = [(i + 1) % along, (j + 1) % round];
        corners.set([i * round + j, i * round + j1, i1 * round + j1, i1 * round + j], k);
        k += 4;
      }
    return uniformConnectivity(along * round, 4, corners, { uv: gridUv(along, round) });
  });
  const positions = new Float32Array(along * round * 3);
  for (let i = 0; i < along; i++) {
    const share = i / along;
    const { point, tangent: t, normal: n } = path.at(share * path.length);
    const side = [t[1] * n[2] - t[2] * n[1], t[2] * n[0] - t[0] * n[2], t[0] * n[1] - t[1] * n[0]];
    const r = radius(share);
    for (let j = 0; j < round; j++) {
      const a = (2 * Math.PI * j) / round;
      const [c, s] = [r * Math.cos(a), r * Math.sin(a)];
      for (let k = 0; k < 3; k++) positions[(i * round + j) * 3 + k] = point[k] + c * n[k] + s * side[k];
    }
  }
  return meshOf(connectivity, positions);
}
