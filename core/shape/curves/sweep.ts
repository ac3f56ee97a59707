import { ConnectivityBuilder } from '../builder';
import { FINISH, type Mesh } from '../mesh';
import { framesAlong } from './frames';
import { capFaces, sharpRuns, type Point2 } from './profile';

export interface SweepOptions {
  /** Counter-clockwise seen against the direction of the path; the first coordinate points along its normal. */
  readonly profile: readonly Point2[];
  readonly profileClosed: boolean;
  /** Scale of the profile at a fraction 0…1 of the length. */
  readonly scale: (share: number) => number;
  /** Rotation of the profile in radians at a fraction of the length. */
  readonly turn: (share: number) => number;
  /** Points by which a closed path is offset at its joint, for partial turns. */
  readonly shift?: number;
  readonly caps: boolean;
  /** Shaded smooth whatever the angle between its sides. */
  readonly smooth?: boolean;
  /** Material slot; the ribbon's main one by default. */
  readonly slot?: keyof typeof FINISH;
}

/** Collects sweeps along several paths into one shape. */
export class Sweeper {
  private readonly faces = new ConnectivityBuilder();
  private readonly positions: number[] = [];

  /** @param path 3 numbers a point */
  add(path: ArrayLike<number>, closed: boolean, o: SweepOptions): void {
    const n = path.length / 3;
    const m = o.profile.length;
    if (n < 2 || m < 2) return;
    const { tangents, normals, lengths } = framesAlong(path, closed);
    const total = lengths[lengths.length - 1] || 1;
    const first = this.positions.length / 3;
    for (let i = 0; i < n; i++) {
      const share = lengths[i] / total;
      const [c, s, size] = [Math.cos(o.turn(share)), Math.sin(o.turn(share)), o.scale(share)];
      const [tx, ty, tz] = [tangents[3 * i], tangents[3 * i + 1], tangents[3 * i + 2]];
      const [nx, ny, nz] = [normals[3 * i], normals[3 * i + 1], normals[3 * i + 2]];
      const [bx, by, bz] = [ty * nz - tz * ny, tz * nx - tx * nz, tx * ny - ty * nx];
      for (const [x, y] of o.profile) {
        const [u, v] = [size * (c * x - s * y), size * (s * x + c * y)];
        this.positions.push(
          path[3 * i] + u * nx + v * bx,
          path[3 * i + 1] + u * ny + v * by,
          path[3 * i + 2] + u * nz + v * bz,
        );
      }
    }
    const groups = o.smooth ? o.profile.map(() => 0) : sharpRuns(o.profile, o.profileClosed);
    const slot = FINISH[o.slot ?? 'main'];
    const across = o.profileClosed ? m : m - 1;
    for (let i = 0; i < (closed ? n : n - 1); i++) {
      const join = i + 1 === n;
      for (let j = 0; j < across; j++) {
        const [a, b] = [first + i * m + j, first + i * m + ((j + 1) % m)];
        const next = (k: number) =>
          first + (join ? 0 : i + 1) * m + ((((k + (join ? (o.shift ?? 0) : 0)) % m) + m) % m);
        const [u0, u1, v0, v1] = [j / across, (j + 1) / across, i / n, (i + 1) / n];
        this.faces.face([a, b, next(j + 1), next(j)], groups[j], slot, [u0, v0, u1, v0, u1, v1, u0, v1]);
      }
    }
    if (closed || !o.caps || !o.profileClosed) return;
    for (const face of capFaces(o.profile)) {
      const uv = face.map((j) => o.profile[j]);
      this.faces.face(face.map((j) => first + j).reverse(), 65_001, slot, [...uv].reverse().flat());
      this.faces.face(
        face.map((j) => first + (n - 1) * m + j),
        65_002,
        slot,
        uv.flat(),
      );
    }
  }

  get count(): number {
    return this.faces.faces;
  }

  finish(): Mesh {
    const positions = Float32Array.from(this.positions);
    return { connectivity: this.faces.finish(positions.length / 3), positions };
  }
}
