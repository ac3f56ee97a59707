/** Segments of a sweep's curve. */
const STEPS = 32;
/** Extent of a sweep to the front and sides, in distances of its wall. */
const REACH = 12;

/** A triangle mesh with normals. */
export interface SweepShape {
  /** 3 numbers per vertex, metres; the floor at height 0. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** 3 vertices per triangle. */
  readonly triangles: Uint32Array;
}

/**
 * A studio sweep: the floor from far in front, a quarter circle, the wall, extruded sideways.
 *
 * @param back metres from the centre to the wall
 * @param curve radius between floor and wall
 */
export function sweepShape(back: number, curve: number): SweepShape {
  const outline: { y: number; z: number; ny: number; nz: number }[] = [{ y: 0, z: REACH * back, ny: 1, nz: 0 }];
  for (let i = 0; i <= STEPS; i++) {
    const a = (i / STEPS) * (Math.PI / 2);
    const [s, c] = [Math.sin(a), Math.cos(a)];
    outline.push({ y: curve * (1 - c), z: curve - back - curve * s, ny: c, nz: s });
  }
  outline.push({ y: REACH * back, z: -back, ny: 0, nz: 1 });
  const [positions, normals, triangles] = [[] as number[], [] as number[], [] as number[]];
  outline.forEach(({ y, z, ny, nz }, i) => {
    for (const x of [-REACH * back, REACH * back]) {
      positions.push(x, y, z);
      normals.push(0, ny, nz);
    }
    if (i > 0) triangles.push(2 * i - 2, 2 * i - 1, 2 * i + 1, 2 * i - 2, 2 * i + 1, 2 * i);
  });
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    triangles: Uint32Array.from(triangles),
  };
}
