/** Finds points that are equal in every bit (0 and −0 too) by a hash table with open addressing, in linear time. */
export class SamePoints {
  private table: Int32Array;
  private places = new Float32Array(3 * 1024);
  private readonly names: number[] = [];

  /** @param expected expected number of distinct points */
  constructor(expected = 1024) {
    this.table = new Int32Array(2 ** Math.ceil(Math.log2(Math.max(16, 2 * expected)))).fill(-1);
  }

  /** The name of the first point at a position: `name` itself if there was none. Positions are single floats. */
  first(x: number, y: number, z: number, name: number): number {
    const [a, b, c] = [Math.fround(x) + 0, Math.fround(y) + 0, Math.fround(z) + 0];
    const at = this.find(a, b, c);
    if (this.table[at] >= 0) return this.names[this.table[at]];
    const index = this.names.push(name) - 1;
    if (3 * index + 3 > this.places.length) {
      const more = new Float32Array(2 * this.places.length);
      more.set(this.places);
      this.places = more;
    }
    this.places.set([a, b, c], 3 * index);
    this.table[at] = index;
    if (2 * this.names.length > this.table.length) this.grow();
    return name;
  }

  private find(x: number, y: number, z: number): number {
    const mask = this.table.length - 1;
    let at = hash(x, y, z) & mask;
    for (;;) {
      const i = this.table[at];
      if (i < 0 || (this.places[3 * i] === x && this.places[3 * i + 1] === y && this.places[3 * i + 2] === z))
        return at;
      at = (at + 1) & mask;
    }
  }

  private grow(): void {
    this.table = new Int32Array(2 * this.table.length).fill(-1);
    const p = this.places;
    for (let i = 0; i < this.names.length; i++) this.table[this.find(p[3 * i], p[3 * i + 1], p[3 * i + 2])] = i;
  }
}

const floats = new Float32Array(3);
const bits = new Int32Array(floats.buffer);

/** The finaliser of MurmurHash3 (Appleby, public domain) over the bits of three floats. */
function hash(x: number, y: number, z: number): number {
  floats[0] = x;
  floats[1] = y;
  floats[2] = z;
  let h = 0;
  for (let i = 0; i < 3; i++) {
    h = Math.imul(h ^ bits[i], 0x85ebca6b);
    h ^= h >>> 13;
    h = Math.imul(h, 0xc2b2ae35);
    h ^= h >>> 16;
  }
  return h;
}
