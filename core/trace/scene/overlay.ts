import type { PictureAt } from '../../evaluate/picture-at';
import type { Surface } from '../../finish/surface';
import { hexToDisplay } from '../../maths/srgb';
import { cross, normalize, vec3, type Vec3 } from '../../maths/vec3';
import { fitFrame } from '../../scene/lens';
import { projectionOf } from '../../scene/projection';
import { lightShownAs } from '../../scene/view-transform';
import { drawBuffers, drawTopologyOf } from '../../shape/drawable';
import type { Mesh } from '../../shape/mesh';
import type { TraceMesh } from './trace-mesh';
import { SURFACE_NUMBERS } from './surfaces';

/** Lines and dots of a ribbon beyond this number are not drawn. */
const MAX_ELEMENTS = 400_000;
/** Share of the distance to the camera by which they stand in front of their faces. */
const NEARER = 0.0015;
/** Sides of a dot. */
const SIDES = 10;

/** Lines or dots that face the camera, emit light and cast no shadow. */
export interface Overlay {
  /** Identifier of their ribbon. */
  readonly ribbon: string;
  readonly drawn: TraceMesh;
  /** Radiance: red, green and blue. */
  readonly light: readonly number[];
}

/** What lines and dots need to know of the camera. */
interface Eye {
  /** Metres that a thousandth of the delivered picture's height covers at a point. */
  thousandth(p: Vec3): number;
  /** Vector from the camera to a point. */
  way(p: Vec3): Vec3;
  readonly nearer: (p: Vec3) => Vec3;
}

function eyeOf({ scene: { camera }, aspect }: PictureAt<Mesh>, width: number, height: number): Eye {
  const view = projectionOf(camera, aspect, width, height);
  const pixel = Math.hypot(...view.across(1, 0, 1));
  const share = (fitFrame(camera.focalLength, aspect, width / height).height * height * pixel) / 1000;
  const from = camera.position;
  const towards = (p: Vec3): Vec3 => [p[0] - from[0], p[1] - from[1], p[2] - from[2]];
  const ahead = (p: Vec3) => towards(p).reduce((sum, x, k) => sum + x * view.ahead[k], 0);
  const parallel = camera.parallel > 0;
  return {
    thousandth: (p) => (parallel ? share : share * Math.max(1e-4, ahead(p))),
    way: (p) => (parallel ? (view.ahead as Vec3) : towards(p)),
    nearer: (p) => {
      const by = parallel ? view.ahead.map((x) => x * ahead(p)) : towards(p);
      return vec3((k) => p[k] - NEARER * by[k]);
    },
  };
}

/** The meshes of a shape in world space, copy after copy, up to the limit. */
function* placesOf(
  shape: Mesh,
  each: (mesh: Mesh) => number,
): Generator<{ mesh: Mesh; matrix: ArrayLike<number> | null }> {
  const { copies } = shape;
  let left = MAX_ELEMENTS;
  if (!copies) return void (each(shape) <= left && (yield { mesh: shape, matrix: null }));
  for (let i = 0; i < copies.source.length; i++) {
    const mesh = copies.sources[copies.source[i]];
    left -= each(mesh);
    if (left < 0) return;
    yield { mesh, matrix: copies.matrices.subarray(16 * i, 16 * i + 16) };
  }
}

function pointAt(positions: Float32Array, v: number, m: ArrayLike<number> | null): Vec3 {
  const [x, y, z] = [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
  if (!m) return [x, y, z];
  return [
    m[0] * x + m[4] * y + m[8] * z + m[12],
    m[1] * x + m[5] * y + m[9] * z + m[13],
    m[2] * x + m[6] * y + m[10] * z + m[14],
  ];
}

/** Collects flat polygons that face the camera. */
class FlatFans {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly triangles: number[] = [];

  fan(corners: readonly Vec3[], normal: Vec3): void {
    const first = this.positions.length / 3;
    for (const c of corners) {
      this.positions.push(...c);
      this.normals.push(...normal);
    }
    for (let i = 1; i + 1 < corners.length; i++) this.triangles.push(first, first + i, first + i + 1);
  }

  get drawn(): TraceMesh {
    return {
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      triangles: Uint32Array.from(this.triangles),
      kinds: new Uint8Array(this.triangles.length / 3),
    };
  }
}

const plus = (p: Vec3, q: Vec3, by: number): Vec3 => [p[0] + q[0] * by, p[1] + q[1] * by, p[2] + q[2] * by];

function linesOf(shape: Mesh, width: number, curvesOnly: boolean, eye: Eye): TraceMesh {
  const pieces = new FlatFans();
  const pairs = (mesh: Mesh) => {
    const { edges, lines } = drawTopologyOf(mesh.connectivity);
    return curvesOnly ? [lines] : [edges, lines];
  };
  const buffers = new Map<Mesh, Float32Array>();
  for (const { mesh, matrix } of placesOf(shape, (m) => pairs(m).reduce((n, p) => n + p.length / 2, 0))) {
    let positions = buffers.get(mesh);
    if (!positions) buffers.set(mesh, (positions = drawBuffers(mesh).positions));
    for (const list of pairs(mesh))
      for (let i = 0; i + 1 < list.length; i += 2) {
        const a = eye.nearer(pointAt(positions, list[i], matrix));
        const b = eye.nearer(pointAt(positions, list[i + 1], matrix));
        const along: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
        const ahead = normalize(along);
        const side = ahead && normalize(cross(ahead, eye.way(a)));
        if (!side) continue;
        const [ha, hb] = [a, b].map((p) => (width / 2) * eye.thousandth(p));
        // Extended a little beyond their ends, so that corners join.
        const [from, to] = [plus(a, ahead, -0.7 * ha), plus(b, ahead, 0.7 * hb)];
        const way = normalize(eye.way(a))!;
        pieces.fan(
          [plus(from, side, -ha), plus(to, side, -hb), plus(to, side, hb), plus(from, side, ha)],
          [-way[0], -way[1], -way[2]],
        );
      }
  }
  return pieces.drawn;
}

function dotsOf(shape: Mesh, { pixels, metres }: NonNullable<Surface['dots']>, eye: Eye): TraceMesh {
  const pieces = new FlatFans();
  for (const { mesh, matrix } of placesOf(shape, (m) => (m.positions.length / 3) * SIDES)) {
    for (let v = 0; v < mesh.positions.length / 3; v++) {
      const p = eye.nearer(pointAt(mesh.positions, v, matrix));
      const way = normalize(eye.way(p));
      if (!way) continue;
      const side = normalize(cross(way, Math.abs(way[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]))!;
      const up = cross(side, way);
      const radius = metres !== undefined ? metres / 2 : ((pixels ?? 0) / 2) * eye.thousandth(p);
      const corner = (i: number) => {
        const a = (2 * Math.PI * i) / SIDES;
        return plus(plus(p, side, radius * Math.cos(a)), up, radius * Math.sin(a));
      };
      pieces.fan(
        Array.from({ length: SIDES }, (_, i) => corner(i)),
        [-way[0], -way[1], -way[2]],
      );
    }
  }
  return pieces.drawn;
}

/** Lines and dots of everything in a picture of this many pixels. */
export function overlaysOf(picture: PictureAt<Mesh>, width: number, height: number): readonly Overlay[] {
  const eye = eyeOf(picture, width, height);
  const out: Overlay[] = [];
  for (const { id: ribbon, shape, surfaces } of picture.ribbons) {
    const { wires, dots, baseColor } = surfaces[0];
    if (wires)
      out.push({
        ribbon,
        drawn: linesOf(shape, wires.width, false, eye),
        light: shownLight(wires.colour, wires.strength),
      });
    // Curves are visible without wires too: a pixel wide, in the ribbon's colour.
    else out.push({ ribbon, drawn: linesOf(shape, 1000 / height, true, eye), light: shownLight(baseColor, 1) });
    if (dots) out.push({ ribbon, drawn: dotsOf(shape, dots, eye), light: shownLight(dots.colour, dots.strength) });
  }
  return out.filter((o) => o.drawn.triangles.length > 0);
}

const shownLight = (hex: string, strength: number) => lightShownAs(hexToDisplay(hex)).map((c) => c * strength);

/** Packs the surface of an overlay; see core/trace/assembly/surfaces/surface.ts. */
export function overlayBlock({ light }: Overlay, slots: number): Float32Array {
  const out = new Float32Array(SURFACE_NUMBERS * slots);
  // Black and emissive; casts no shadow.
  out.set([1, 0, 0, 1.5], 3);
  out.set(light, 12);
  out[16] = 1;
  out[32] = 1;
  out[29] = -1;
  out[36] = -Infinity;
  out[41] = 1;
  out[42] = 1;
  return out;
}
