import { bitAnd, float, floor, int, ivec2, textureLoad, vec3 } from 'three/tsl';
import { DataTexture, TextureNode, type Node, type Texture } from 'three/webgpu';
import { four, integer, rgb, scalar, type Int, type Rgb, type Scalar } from '../surfaces/tsl';

export type Place = Rgb;
type Cell = { readonly x: Int; readonly y: Int; readonly z: Int };

/** A texture of tables read by integer coordinates, without the usual texture matrix or vertical flip. */
class TableTextureNode extends TextureNode {
  setupUV(_builder: unknown, uvNode: Node): Node {
    return uvNode;
  }
}

/**
 * The tables of a surface's patterns: rows of 256 entries. Entry i holds the permutation of i, then three numbers that
 * belong to p[i], or for levels to i itself.
 */
export class Tables {
  private readonly source = new TableTextureNode(new DataTexture());
  /** The texture to read. */
  set texture(texture: DataTexture) {
    this.source.value = texture;
  }

  at(row: Int): Table {
    return new Table(this, row);
  }

  /** All four numbers of a row's entry; indices wrap after 255. */
  read(i: Int, row: Int): Node<'vec4'> {
    // Not a shader function: those are cached across shaders, and would keep the first one's texture name.
    const source: object = this.source;
    const node = textureLoad(source as Texture, ivec2(i.bitAnd(int(255)) as Int, row));
    node.updateMatrix = false;
    return four(node);
  }
}

/** A row of the tables. */
export class Table {
  constructor(
    readonly tables: Tables,
    readonly row: Int,
  ) {}

  /** All four numbers of an entry; indices wrap after 255. */
  read(i: Int): Node<'vec4'> {
    return this.tables.read(i, this.row);
  }

  /** The permutation of an entry. */
  hash(i: Int): Int {
    return int(this.read(i).x) as Int;
  }

  /** Integer lattice coordinates within the period. */
  wrapped(cell: Rgb, mask: Int): Cell {
    const { x, y, z } = cell;
    const within = (i: Scalar) => integer(bitAnd(int(i), mask).toVar());
    return { x: within(x), y: within(y), z: within(z) };
  }
}

const fade = (t: Rgb): Rgb =>
  t
    .mul(t)
    .mul(t)
    .mul(t.mul(t.mul(6).sub(15)).add(10)) as Rgb;
const mix = (a: Scalar, b: Scalar, t: Scalar) => scalar(a.add(b.sub(a).mul(t)));

/**
 * Blends the eight corners of a lattice cell: `corner` gives the value of one from its four numbers and the vector to
 * it.
 */
function blended(
  t: Table,
  p: Place,
  mask: Int,
  corner: (numbers: Node<'vec4'>, dx: Scalar, dy: Scalar, dz: Scalar) => Scalar,
): Scalar {
  const cell = floor(p).toVar();
  const f = p.sub(cell).toVar();
  const near = t.wrapped(rgb(cell), mask);
  const far = t.wrapped(rgb(cell.add(1)), mask);
  const w = fade(f as Rgb).toVar();
  const [x, y] = [
    [near.x, far.x],
    [near.y, far.y],
  ] as [Int, Int][];
  const z = [near.z, far.z] as [Int, Int];
  const first = x.map((i) => t.hash(i).toVar());
  const second = first.map((a) => y.map((j) => t.hash(a.add(j) as Int).toVar()));
  const at = (i: number, j: number, k: number) =>
    corner(t.read(second[i][j].add(z[k]) as Int), scalar(f.x.sub(i)), scalar(f.y.sub(j)), scalar(f.z.sub(k)));
  const side = (k: number) =>
    mix(mix(at(0, 0, k), at(1, 0, k), scalar(w.x)), mix(at(0, 1, k), at(1, 1, k), scalar(w.x)), scalar(w.y));
  return scalar(mix(side(0), side(1), scalar(w.z)).toVar());
}

/** Gradient noise; see core/noise/gradients. */
export function gradientAt(t: Table, p: Place, mask: Int): Scalar {
  return blended(t, p, mask, (g, dx, dy, dz) => scalar(g.y.mul(dx).add(g.z.mul(dy)).add(g.w.mul(dz))));
}

/** Value noise; see core/noise/lattice-values. */
export function valueAt(t: Table, p: Place, mask: Int): Scalar {
  return blended(t, p, mask, (v) => scalar(v.y));
}

/** Simplex noise; see core/noise/simplex. */
export function simplexAt(t: Table, p: Place, mask: Int): Scalar {
  const cell = floor(p.add(p.x.add(p.y).add(p.z).div(3))).toVar();
  const skew = cell.x.add(cell.y).add(cell.z).div(6);
  const p0 = p.sub(cell).add(skew).toVar();
  const whole = (condition: unknown) => (condition as { select(a: number, b: number): Scalar }).select(1, 0);
  const i1 = whole(p0.x.greaterThanEqual(p0.y).and(p0.x.greaterThanEqual(p0.z)));
  const j1 = whole(p0.y.greaterThan(p0.x).and(p0.y.greaterThanEqual(p0.z)));
  const i2 = whole(p0.x.greaterThanEqual(p0.y).or(p0.x.greaterThanEqual(p0.z)));
  const k2 = whole(p0.z.greaterThan(p0.y).or(p0.z.greaterThan(p0.x)));
  const near = vec3(float(i1), float(j1), float(1).sub(float(i1)).sub(float(j1))).toVar();
  const far = vec3(float(i2), float(2).sub(float(i2)).sub(float(k2)), float(k2)).toVar();
  const corner = (to: Rgb, shift: number): Scalar => {
    const d = p0.sub(to).add(shift).toVar();
    const faded = float(0.6).sub(d.dot(d)).max(0).toVar();
    const c = t.wrapped(rgb(cell.add(to)), mask);
    const g = t.read(t.hash(t.hash(c.z as Int).add(c.y) as Int).add(c.x) as Int);
    return scalar(faded.mul(faded).mul(faded).mul(faded).mul(g.yzw.dot(d)));
  };
  return scalar(
    corner(vec3(0, 0, 0), 0)
      .add(corner(near as Rgb, 1 / 6))
      .add(corner(far as Rgb, 1 / 3))
      .add(corner(vec3(1, 1, 1), 1 / 2))
      .mul(32),
  );
}
