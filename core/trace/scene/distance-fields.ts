import { determinant, inverseRows } from '../../maths/matrix';
import type { DistanceBound } from '../../shape/fractals/distance';
import { CUBE, fieldBound, type DistanceField } from '../../shape/fractals/field';

/** Most steps along a ray; a ray that has not arrived by then misses. */
const MAX_STEPS = 512;
/**
 * Over-relaxed steps: nine tenths of the way to where the distance bounds would touch a planar surface, and at most
 * this factor times the bound (C. Bálint & G. Valasek, “Accelerating sphere tracing”, 2018). If consecutive bounds do
 * not overlap, the ray steps back to the end of the first (B. Keinert et al., “Enhanced sphere tracing”, 2014).
 */
const [OVER_RELAXATION, MAX_RELAXATION] = [0.9, 1.8];
/** A point counts as a hit when it is nearer than this share of a pixel. */
const PIXEL = 0.4;
/** Least hit distance relative to the size of the form: later computations are in single precision. */
const FINEST = 2e-5;
/** Shortest distance at which occlusion is probed, in sizes of the form. */
const OCCLUSION_DISTANCE = 0.02;

/** Width of a pixel in metres: per metre of distance, and at least. */
export interface PixelSize {
  readonly perMetre: number;
  readonly minWidth: number;
}

interface Marched {
  readonly bound: DistanceBound;
  readonly cut: DistanceField['cut'];
  /** From object space to the form's own space, 12 numbers by rows. */
  readonly inverse: readonly number[];
  /** Scale from object space to the form's own. */
  readonly size: number;
}

/**
 * Distance fields, found by sphere tracing (J. C. Hart, “Sphere tracing”, 1996). The compiled tracer calls back; see
 * core/trace/assembly/trees/field.ts.
 */
export class MarchedFields {
  private readonly list: Marched[] = [];

  /** Where a ray enters and leaves the bounding shape. */
  private enters = 0;
  private leaves = 0;

  /** @param withOcclusion ambient occlusion is needed: a pattern depends on it */
  constructor(
    private readonly pixel: PixelSize = { perMetre: 0, minWidth: 0 },
    private readonly withOcclusion = true,
  ) {}

  /** Adds a form and returns its number. */
  add(field: DistanceField): number {
    this.list.push({
      bound: fieldBound(field),
      cut: field.cut,
      inverse: inverseRows(field.matrix),
      size: 1 / Math.cbrt(Math.abs(determinant(field.matrix))),
    });
    return this.list.length - 1;
  }

  /** Distance in metres along a ray in object space to the form; negative if it is not hit between `from` and `to`. */
  march(
    k: number,
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    from: number,
    to: number,
  ): number {
    const { bound, cut, inverse: m } = this.list[k];
    const px = m[0] * ox + m[1] * oy + m[2] * oz + m[3];
    const py = m[4] * ox + m[5] * oy + m[6] * oz + m[7];
    const pz = m[8] * ox + m[9] * oy + m[10] * oz + m[11];
    const vx = m[0] * dx + m[1] * dy + m[2] * dz;
    const vy = m[4] * dx + m[5] * dy + m[6] * dz;
    const vz = m[8] * dx + m[9] * dy + m[10] * dz;
    const speed = Math.sqrt(vx * vx + vy * vy + vz * vz);
    this.enters = from;
    this.leaves = to;
    if (cut === 'ball') {
      const b = (px * vx + py * vy + pz * vz) / (speed * speed);
      const nearest = px * px + py * py + pz * pz - b * b * speed * speed;
      const inside = 1.002 - nearest;
      if (inside <= 0) return -1;
      const half = Math.sqrt(inside) / speed;
      this.between(-b - half, -b + half);
    } else {
      this.slab(px, vx);
      this.slab(py, vy);
      this.slab(pz, vz);
    }
    const { enters, leaves } = this;
    let t = enters;
    // The bound at the previous point, and the step taken from there.
    let before = 0;
    let gone = 0;
    for (let i = 0; i < MAX_STEPS; i++) {
      const ends = t > leaves;
      const free = ends ? -1 : bound(px + t * vx, py + t * vy, pz + t * vz);
      if (gone > before && before + free < gone) {
        t -= (gone - before) / speed;
        gone = before;
        continue;
      }
      if (ends) return -1;
      if (free < this.hitDistance(t, speed)) return t > from ? t : -1;
      const nears = gone > 0 ? Math.max(-1, (before - free) / gone) : 1;
      before = free;
      gone = free * Math.min(MAX_RELAXATION, Math.max(1, (2 * OVER_RELAXATION) / (1 + nears)));
      t += gone / speed;
    }
    return -1;
  }

  private between(a: number, b: number): void {
    this.enters = Math.max(this.enters, a);
    this.leaves = Math.min(this.leaves, b);
  }

  /** Clips against both sides of the cube along an axis: position and speed of the ray. */
  private slab(p: number, v: number): void {
    const edge = 1.001 * CUBE;
    const inv = 1 / (Math.abs(v) < 1e-18 ? 1e-18 : v);
    const [a, b] = [(-edge - p) * inv, (edge - p) * inv];
    this.between(Math.min(a, b), Math.max(a, b));
  }

  /** Hit distance at t, in the form's own space. */
  private hitDistance(t: number, speed: number): number {
    const { perMetre, minWidth } = this.pixel;
    return Math.max(FINEST, PIXEL * speed * Math.max(minWidth, perMetre * t));
  }

  /**
   * Evaluates a point of the form, in object space.
   *
   * @param far metres that the ray has come
   * @param out receives the normal, ambient occlusion (0…1; 0 if not needed), and the offset of rays that start there
   */
  evaluate(k: number, x: number, y: number, z: number, far: number, out: Float32Array, at: number): void {
    const { bound, inverse: m, size } = this.list[k];
    const px = m[0] * x + m[1] * y + m[2] * z + m[3];
    const py = m[4] * x + m[5] * y + m[6] * z + m[7];
    const pz = m[8] * x + m[9] * y + m[10] * z + m[11];
    const near = this.hitDistance(far, size);
    const h = near;
    // Gradient from four points of a tetrahedron (I. Quilez, “Normals for an SDF”).
    const a = bound(px + h, py - h, pz - h);
    const b = bound(px - h, py - h, pz + h);
    const c = bound(px - h, py + h, pz - h);
    const d = bound(px + h, py + h, pz + h);
    const [gx, gy, gz] = [a - b - c + d, -a - b + c + d, -a + b - c + d];
    const length = Math.hypot(gx, gy, gz) || 1;
    const [nx, ny, nz] = [gx / length, gy / length, gz / length];
    // Normals transform by the transposed inverse.
    out[at] = m[0] * nx + m[4] * ny + m[8] * nz;
    out[at + 1] = m[1] * nx + m[5] * ny + m[9] * nz;
    out[at + 2] = m[2] * nx + m[6] * ny + m[10] * nz;
    out[at + 3] = this.withOcclusion ? occlusionAt(bound, px, py, pz, nx, ny, nz) : 0;
    out[at + 4] = (3 * near) / size;
  }
}

/** Ambient occlusion, 0…1, from bounds along the normal. */
function occlusionAt(
  bound: DistanceBound,
  px: number,
  py: number,
  pz: number,
  nx: number,
  ny: number,
  nz: number,
): number {
  const here = bound(px, py, pz);
  const rise =
    bound(px + (nx * OCCLUSION_DISTANCE) / 8, py + (ny * OCCLUSION_DISTANCE) / 8, pz + (nz * OCCLUSION_DISTANCE) / 8) -
    here;
  const grows = Math.max(0.1, Math.min(1, rise / (OCCLUSION_DISTANCE / 8)));
  let withOcclusion = 0;
  for (let i = 1; i <= 4; i++) {
    const away = OCCLUSION_DISTANCE * i;
    const room = bound(px + nx * away, py + ny * away, pz + nz * away) / grows;
    withOcclusion += (Math.max(0, away - room) / away) * 2 ** -i;
  }
  return Math.min(1, withOcclusion);
}

/** Bounds of a form in object space. */
export function fieldBox({ cut, matrix: m }: DistanceField): { readonly low: number[]; readonly high: number[] } {
  const edge = 1.001 * (cut === 'ball' ? 1 : CUBE);
  const reach = [0, 1, 2].map((r) =>
    cut === 'ball'
      ? edge * Math.hypot(m[r], m[4 + r], m[8 + r])
      : edge * (Math.abs(m[r]) + Math.abs(m[4 + r]) + Math.abs(m[8 + r])),
  );
  return { low: reach.map((x, r) => m[12 + r] - x), high: reach.map((x, r) => m[12 + r] + x) };
}
