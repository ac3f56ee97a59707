import { determinant, inverseRows } from '../maths/matrix';
import type { DistanceBound } from '../shape/fractals/distance';
import { CUBE, fieldBound, type DistanceField } from '../shape/fractals/field';

/** Steps along a ray; one that has not arrived by then is taken to pass by. */
const STEPS = 512;
/**
 * A ray goes on by more than what is free: as far as what is free there would touch it, were the form a plane, of that
 * nine tenths, and so many times what is free at most (C. Bálint & G. Valasek, “Accelerating sphere tracing”, 2018). Where
 * it does not touch it, the ray goes back to where what is free ends (B. Keinert et al., “Enhanced sphere tracing”, 2014).
 */
const [FARTHER, FARTHEST] = [0.9, 1.8];
/** A place is on the form when it is nearer than this share of a pixel. */
const PIXEL = 0.4;
/** The finest that is told apart at the size of the form: what is worked out of it is in single precision. */
const FINEST = 2e-5;
/** The nearest distance at which crevices are told by the room in front, in sizes of the form. */
const CREVICE = 0.02;

/** Metres that a pixel shows of what is a metre away, and of what is nearest. */
export interface PixelSize {
  readonly perMetre: number;
  readonly least: number;
}

interface Marched {
  readonly bound: DistanceBound;
  readonly cut: DistanceField['cut'];
  /** From the space of the shape to the form's own, 12 numbers by rows. */
  readonly inverse: readonly number[];
  /** How many times as large as the shape it is in its own space. */
  readonly size: number;
}

/**
 * Endless forms as they are traced: rays go on by the distance that is free until they arrive (J. C. Hart, “Sphere
 * tracing”, 1996). Asked by the tracer; see core/trace/assembly/field.ts.
 */
export class MarchedFields {
  private readonly list: Marched[] = [];

  /** Where a ray enters what a form is cut out by, and where it leaves it. */
  private enters = 0;
  private leaves = 0;

  /** @param deep depths of crevices are told: something that is worn goes by them */
  constructor(
    private readonly pixel: PixelSize = { perMetre: 0, least: 0 },
    private readonly deep = true,
  ) {}

  /** Takes in a form, and gives its number. */
  add(field: DistanceField): number {
    this.list.push({
      bound: fieldBound(field),
      cut: field.cut,
      inverse: inverseRows(field.matrix),
      size: 1 / Math.cbrt(Math.abs(determinant(field.matrix))),
    });
    return this.list.length - 1;
  }

  /** Metres along a ray of the shape's space to the form; below 0 where it does not meet it between `from` and `to`. */
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
    // What was free at the place before, and how far this one is from it.
    let before = 0;
    let gone = 0;
    for (let i = 0; i < STEPS; i++) {
      const ends = t > leaves;
      const free = ends ? -1 : bound(px + t * vx, py + t * vy, pz + t * vz);
      if (gone > before && before + free < gone) {
        t -= (gone - before) / speed;
        gone = before;
        continue;
      }
      if (ends) return -1;
      if (free < this.finest(t, speed)) return t > from ? t : -1;
      const nears = gone > 0 ? Math.max(-1, (before - free) / gone) : 1;
      before = free;
      gone = free * Math.min(FARTHEST, Math.max(1, (2 * FARTHER) / (1 + nears)));
      t += gone / speed;
    }
    return -1;
  }

  private between(a: number, b: number): void {
    this.enters = Math.max(this.enters, a);
    this.leaves = Math.min(this.leaves, b);
  }

  /** Between both sides of the cube along an axis: a place there, and how fast it changes. */
  private slab(p: number, v: number): void {
    const edge = 1.001 * CUBE;
    const inv = 1 / (Math.abs(v) < 1e-18 ? 1e-18 : v);
    const [a, b] = [(-edge - p) * inv, (edge - p) * inv];
    this.between(Math.min(a, b), Math.max(a, b));
  }

  /** How near is there, in the form's own space. */
  private finest(t: number, speed: number): number {
    const { perMetre, least } = this.pixel;
    return Math.max(FINEST, PIXEL * speed * Math.max(least, perMetre * t));
  }

  /**
   * What is to be known about a place of the form, in the shape's space.
   *
   * @param far metres that the ray has come
   * @param out takes the way it looks, how deep in a crevice it lies (0…1; 0 where nothing goes by it), and how far from it a ray begins
   */
  lookAt(k: number, x: number, y: number, z: number, far: number, out: Float32Array, at: number): void {
    const { bound, inverse: m, size } = this.list[k];
    const px = m[0] * x + m[1] * y + m[2] * z + m[3];
    const py = m[4] * x + m[5] * y + m[6] * z + m[7];
    const pz = m[8] * x + m[9] * y + m[10] * z + m[11];
    const near = this.finest(far, size);
    const h = near;
    // Four places round about tell which way it rises (I. Quilez, “Normals for an SDF”).
    const a = bound(px + h, py - h, pz - h);
    const b = bound(px - h, py - h, pz + h);
    const c = bound(px - h, py + h, pz - h);
    const d = bound(px + h, py + h, pz + h);
    const [gx, gy, gz] = [a - b - c + d, -a - b + c + d, -a + b - c + d];
    const length = Math.hypot(gx, gy, gz) || 1;
    const [nx, ny, nz] = [gx / length, gy / length, gz / length];
    // A normal goes the other way round the matrix.
    out[at] = m[0] * nx + m[4] * ny + m[8] * nz;
    out[at + 1] = m[1] * nx + m[5] * ny + m[9] * nz;
    out[at + 2] = m[2] * nx + m[6] * ny + m[10] * nz;
    out[at + 3] = this.deep ? crevice(bound, px, py, pz, nx, ny, nz) : 0;
    out[at + 4] = (3 * near) / size;
  }
}

/** How deep in a crevice a place lies, 0…1, by how much room there is on the way that it looks. */
function crevice(bound: DistanceBound, px: number, py: number, pz: number, nx: number, ny: number, nz: number): number {
  const here = bound(px, py, pz);
  const rise = bound(px + (nx * CREVICE) / 8, py + (ny * CREVICE) / 8, pz + (nz * CREVICE) / 8) - here;
  const grows = Math.max(0.1, Math.min(1, rise / (CREVICE / 8)));
  let deep = 0;
  for (let i = 1; i <= 4; i++) {
    const away = CREVICE * i;
    const room = bound(px + nx * away, py + ny * away, pz + nz * away) / grows;
    deep += (Math.max(0, away - room) / away) * 2 ** -i;
  }
  return Math.min(1, deep);
}

/** Lowest x, y, z and highest x, y, z of a form in the space of its shape. */
export function fieldBox({ cut, matrix: m }: DistanceField): { readonly low: number[]; readonly high: number[] } {
  const edge = 1.001 * (cut === 'ball' ? 1 : CUBE);
  const reach = [0, 1, 2].map((r) =>
    cut === 'ball'
      ? edge * Math.hypot(m[r], m[4 + r], m[8 + r])
      : edge * (Math.abs(m[r]) + Math.abs(m[4 + r]) + Math.abs(m[8 + r])),
  );
  return { low: reach.map((x, r) => m[12 + r] - x), high: reach.map((x, r) => m[12 + r] + x) };
}
