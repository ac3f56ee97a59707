/** A grid of cells over points, to find those near a place. @param p 3 numbers a point */
export class NearPoints {
  private readonly cells = new Map<number, number[]>();

  constructor(
    private readonly p: ArrayLike<number>,
    private readonly cell: number,
  ) {
    for (let v = 0; v < p.length / 3; v++) this.put(v);
  }

  private key(x: number, y: number, z: number): number {
    // A hash, so that far places may share a cell; distances are checked anyway.
    return (Math.imul(x, 73_856_093) ^ Math.imul(y, 19_349_663) ^ Math.imul(z, 83_492_791)) | 0;
  }

  private put(v: number): void {
    const key = this.key(
      Math.floor(this.p[3 * v] / this.cell),
      Math.floor(this.p[3 * v + 1] / this.cell),
      Math.floor(this.p[3 * v + 2] / this.cell),
    );
    const list = this.cells.get(key);
    if (list) list.push(v);
    else this.cells.set(key, [v]);
  }

  /** Calls back with each point within `radius` (at most the cell's size) of a place, and its distance squared. */
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
