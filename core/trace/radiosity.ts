/** Radiosity of matt rooms, to hold paths against: for tests, and by nothing that paths are followed with. */

type Point = readonly number[];

/** A flat face of four corners, in order, that looks along the cross product of its first two edges. */
export interface Face {
  readonly corners: readonly Point[];
  /** Share of light that it gives back, of each channel. */
  readonly albedo: readonly number[];
  /** Radiance of its own. */
  readonly glow: number;
  /** Patches each way. */
  readonly patches: number;
  /** It may stand between others. */
  readonly shades?: boolean;
}

interface Patch {
  readonly face: number;
  readonly normal: Point;
  readonly middle: Point;
  readonly corners: readonly Point[];
}

const less = (a: Point, b: Point) => a.map((x, k) => x - b[k]);
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Point, b: Point) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const unit = (a: Point) => {
  const length = Math.hypot(...a);
  return a.map((x) => x / length);
};

function patchesOf(faces: readonly Face[]): readonly Patch[] {
  return faces.flatMap(({ corners, patches: n }, face) => {
    const [a, b, c, d] = corners;
    const at = (s: number, t: number) =>
      a.map((x, k) => (1 - t) * ((1 - s) * x + s * b[k]) + t * ((1 - s) * d[k] + s * c[k]));
    const normal = unit(cross(less(b, a), less(c, b)));
    return Array.from({ length: n * n }, (_, i) => {
      const [s, t] = [i % n, Math.floor(i / n)];
      const corner = (p: number, q: number) => at((s + p) / n, (t + q) / n);
      return {
        face,
        normal,
        middle: corner(0.5, 0.5),
        corners: [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)],
      };
    });
  });
}

/**
 * Share of what a place gets that comes from a polygon which looks at it, by Lambert’s sum over its edges (Photometria,
 * 1760), of the part above the place’s own plane.
 */
export function formFactor(p: Point, normal: Point, polygon: readonly Point[]): number {
  const heights = polygon.map((c) => dot(less(c, p), normal));
  const above: Point[] = [];
  polygon.forEach((c, i) => {
    const next = (i + 1) % polygon.length;
    const [h, k] = [heights[i], heights[next]];
    if (h >= 0) above.push(c);
    if (h * k < 0) above.push(c.map((x, j) => x + (h / (h - k)) * (polygon[next][j] - x)));
  });
  let sum = 0;
  above.forEach((c, i) => {
    const [u, v] = [c, above[(i + 1) % above.length]].map((x) => less(x, p));
    const [s, t] = [Math.hypot(...u), Math.hypot(...v)];
    if (s < 1e-12 || t < 1e-12) return;
    const across = cross(u, v);
    const length = Math.hypot(...across);
    if (length > 1e-12 * s * t)
      sum += (Math.acos(Math.max(-1, Math.min(1, dot(u, v) / (s * t)))) * dot(across, normal)) / length;
  });
  return Math.abs(sum) / (2 * Math.PI);
}

/** A face that may stand between two places: its plane, and the planes through its edges that look inwards. */
type Shade = readonly { readonly normal: Point; readonly level: number }[];

function shadeOf({ corners }: Face): Shade {
  const [a, b, c] = corners;
  const normal = unit(cross(less(b, a), less(c, b)));
  const edges = corners.map((x, i) => {
    const inwards = unit(cross(normal, less(corners[(i + 1) % 4], x)));
    return { normal: inwards, level: dot(inwards, x) };
  });
  return [{ normal, level: dot(normal, a) }, ...edges];
}

function between([plane, ...edges]: Shade, p: Point, q: Point): boolean {
  const [from, to] = [dot(plane.normal, p) - plane.level, dot(plane.normal, q) - plane.level];
  const t = from / (from - to);
  if (!(t > 1e-6 && t < 1 - 1e-6)) return false;
  for (const { normal, level } of edges) if ((1 - t) * dot(normal, p) + t * dot(normal, q) < level) return false;
  return true;
}

/** Places of a patch that are looked at whether they are seen, each way. */
const SEEN = 4;

/** Share of a patch that is seen from a place. */
function seen(p: Point, { corners: [a, b, c, d] }: Patch, shades: readonly Shade[]): number {
  let count = 0;
  for (let i = 0; i < SEEN; i++)
    for (let j = 0; j < SEEN; j++) {
      const [s, t] = [(i + 0.5) / SEEN, (j + 0.5) / SEEN];
      const at = a.map((x, k) => (1 - t) * ((1 - s) * x + s * b[k]) + t * ((1 - s) * d[k] + s * c[k]));
      if (!shades.some((shade) => between(shade, p, at))) count++;
    }
  return count / SEEN ** 2;
}

/**
 * Solves how bright a matt room is by its patches, their form factors and repeated gathering (C. Goral, K. Torrance,
 * D. Greenberg & B. Battaile, “Modeling the interaction of light between diffuse surfaces”, 1984).
 *
 * @param faces of the room and of what stands in it; they give back and give light on the side they look to
 * @returns radiance that a face sends out at one of its places: gathered there from all patches
 */
export function radiosity(faces: readonly Face[]): (face: number, place: Point) => readonly number[] {
  const patches = patchesOf(faces);
  const shades = faces.filter((f) => f.shades).map(shadeOf);
  /** Shares of what a place of a face gets that come from each patch. */
  const sharesAt = (face: number, p: Point, normal: Point) =>
    Float64Array.from(patches, (q) => {
      if (q.face === face || dot(less(p, q.middle), q.normal) <= 0) return 0;
      const factor = formFactor(p, normal, q.corners);
      return factor > 0 ? factor * seen(p, q, shades) : 0;
    });
  const shares = patches.map((p) => sharesAt(p.face, p.middle, p.normal));
  const gathered = (from: Float64Array, light: Float64Array) => from.reduce((sum, f, j) => sum + f * light[j], 0);
  const light = [0, 1, 2].map((k) => {
    let so = Float64Array.from(patches, (p) => faces[p.face].glow);
    for (let round = 0; round < 40; round++)
      so = Float64Array.from(patches, (p, i) => faces[p.face].glow + faces[p.face].albedo[k] * gathered(shares[i], so));
    return so;
  });
  return (face, place) => {
    const { normal } = patches.find((p) => p.face === face)!;
    const from = sharesAt(face, place, normal);
    return light.map((l, k) => faces[face].glow + faces[face].albedo[k] * gathered(from, l));
  };
}
