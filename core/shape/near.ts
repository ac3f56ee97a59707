/** A grid of cells over points, for neighbour queries. @param p 3 numbers per point */
export class NearPoints {
  private readonly cells = new Map<number, number[]>();

  constructor(
    private readonly p: ArrayLike<number>,
    private readonly cell: number,
    /** Points to begin with; all of them by default. */
    count = p.length / 3,
  ) {
    for (let v = 0; v < count; v++) this.put(v);
  }

  private key(x: number, y: number, z: number): number {
    // A hash, so distant cells may collide; distances are checked anyway.
    return (Math.imul(x, 73_856_093) ^ Math.imul(y, 19_349_663) ^ Math.imul(z, 83_492_791)) | 0;
  }

  /** Adds a point. */
  put(v: number): void {
    const key = this.key(
      Math.floor(this.p[3 * v] / this.cell),
      Math.floor(this.p[3 * v + 1] / this.cell),
      Math.floor(this.p[3 * v + 2] / this.cell),
    );
    const list = this.cells.get(key);
    if (list) list.push(v);
    else this.cells.set(key, [v]);
  }

  /** Number of ordered pairs in the same or adjacent cells: at least as many as `within` finds. */
  candidates(): number {
    let sum = 0;
    const counted = new Set<number>();
    for (let v = 0; v < this.p.length / 3; v++) {
      const [x, y, z] = [0, 1, 2].map((axis) => Math.floor(this.p[3 * v + axis] / this.cell));
      const own = this.key(x, y, z);
      if (counted.has(own)) continue;
      counted.add(own);
      const keys = new Set<number>();
      for (let i = x - 1; i <= x + 1; i++)
        for (let j = y - 1; j <= y + 1; j++) for (let k = z - 1; k <= z + 1; k++) keys.add(this.key(i, j, k));
      const here = this.cells.get(own)?.length ?? 0;
      for (const key of keys) sum += here * (this.cells.get(key)?.length ?? 0);
    }
    return sum;
  }

  /** Visits each point within `radius` (at most the cell's size) of a position, with its squared distance. */
  within(x: number, y: number, z: number, radius: number, visit: (v: number, square: number) => void): void {
    const [cx, cy, cz] = [Math.floor(x / this.cell), Math.floor(y / this.cell), Math.floor(z / this.cell)];
    const seen: number[] = [];
    for (let i = cx - 1; i <= cx + 1; i++)
      for (let j = cy - 1; j <= cy + 1; j++)
        for (let k = cz - 1; k <= cz + 1; k++) {
          const key = this.key(i, j, k);
          if (seen.includes(key)) continue;
          seen.push(key);
          for (const v of this.cells.get(key) ?? []) {
            const square = (this.p[3 * v] - x) ** 2 + (this.p[3 * v + 1] - y) ** 2 + (this.p[3 * v + 2] - z) ** 2;
            if (square <= radius * radius) visit(v, square);
          }
        }
  }
}
