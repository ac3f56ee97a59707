import { closeSync, openSync, readSync, rmSync, writeSync } from 'node:fs';

/** Component types of glTF. */
const [FLOAT, UNSIGNED_INT] = [5126, 5125];
export const [ARRAY, ELEMENTS] = [34962, 34963];

/** Most bytes of a file: glTF counts them in 32 bits. */
export const MOST_GLB = 2 ** 32 - 1;
const CHUNK = 1 << 20;

/**
 * A binary glTF file written incrementally (Khronos Group, glTF 2.0, section 4.4): numbers go to disk at once, and the
 * JSON is put before them at the end.
 */
export class GlbFile {
  readonly json: Record<string, unknown[]> = { bufferViews: [], accessors: [] };
  private readonly bin: number;
  private readonly binName: string;
  private length = 0;

  constructor(private readonly file: string) {
    this.binName = `${file}.bin`;
    this.bin = openSync(this.binName, 'w+');
  }

  /** Bytes so far. */
  get bytes(): number {
    return this.length;
  }

  /** Appends an object to a list of the file; returns its index. */
  add(list: string, item: object): number {
    return (this.json[list] ??= []).push(item) - 1;
  }

  /**
   * Adds an accessor.
   *
   * @param parts components per element, 1 … 4
   * @param bounds writes minimum and maximum, as positions and times require
   */
  accessor(
    values: Float32Array | Uint32Array,
    parts: 1 | 2 | 3 | 4,
    { target, bounds = false }: { target?: number; bounds?: boolean } = {},
  ): number {
    const view = this.add('bufferViews', {
      buffer: 0,
      byteOffset: this.length,
      byteLength: values.byteLength,
      ...(target ? { target } : {}),
    });
    writeSync(this.bin, Buffer.from(values.buffer, values.byteOffset, values.byteLength));
    this.length += values.byteLength;
    return this.add('accessors', {
      bufferView: view,
      componentType: values instanceof Float32Array ? FLOAT : UNSIGNED_INT,
      count: values.length / parts,
      type: parts === 1 ? 'SCALAR' : `VEC${parts}`,
      ...(bounds ? boundsOf(values, parts) : {}),
    });
  }

  /** Writes all of it. */
  finish(more: object): void {
    const json = Buffer.from(
      JSON.stringify({ ...more, ...this.json, ...(this.length > 0 ? { buffers: [{ byteLength: this.length }] } : {}) }),
    );
    // Chunks end on 4-byte boundaries; JSON is padded with spaces.
    const padded = Buffer.concat([json, Buffer.alloc((4 - (json.length % 4)) % 4, 0x20)]);
    const out = openSync(this.file, 'w');
    try {
      const word = (...numbers: number[]) => Buffer.from(Uint32Array.from(numbers).buffer);
      const total = 12 + 8 + padded.length + (this.length > 0 ? 8 + this.length : 0);
      writeSync(out, word(0x46546c67, 2, total, padded.length, 0x4e4f534a));
      writeSync(out, padded);
      if (this.length === 0) return;
      writeSync(out, word(this.length, 0x004e4942));
      const chunk = Buffer.alloc(CHUNK);
      for (let at = 0; at < this.length; at += CHUNK)
        writeSync(out, chunk, 0, readSync(this.bin, chunk, 0, Math.min(CHUNK, this.length - at), at));
    } finally {
      closeSync(out);
    }
  }

  /** Discards what was written on the way. */
  close(): void {
    closeSync(this.bin);
    rmSync(this.binName, { force: true });
  }
}

function boundsOf(values: ArrayLike<number>, parts: number): { min: number[]; max: number[] } {
  const min = new Array<number>(parts).fill(Infinity);
  const max = new Array<number>(parts).fill(-Infinity);
  for (let i = 0; i < values.length; i++) {
    const k = i % parts;
    if (values[i] < min[k]) min[k] = values[i];
    if (values[i] > max[k]) max[k] = values[i];
  }
  return { min, max };
}
