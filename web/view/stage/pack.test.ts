import { randomSource } from '@maypole/core/maths/random';
import { describe, expect, it } from 'vitest';
import type { Drawable, ViewFrame } from './frame';
import { Packer, Unpacker, type PackedFrame } from './pack';

const topology = (key: string) => ({
  key,
  triangles: Uint32Array.of(0, 1, 2),
  edges: Uint32Array.of(0, 1),
  lines: new Uint32Array(0),
  groups: [{ slot: 0, start: 0, count: 3 }],
  closed: false,
});
const shapes: Drawable[] = [0, 1, 2, 3, 4, 5].map((i) => ({
  key: `shape-${i}`,
  parts: Array.from({ length: 1 + (i % 3) }, (_, k) => ({
    key: `part-${(i + k) % 4}`,
    topology: topology(`topology-${(i + k) % 2}`),
    positions: Float32Array.from({ length: 9 }, (_, x) => x + ((i + k) % 4)),
    normals: new Float32Array(9),
    ...(i % 2
      ? {
          instances: {
            matrices: new Float32Array(16).fill(i),
            numbers: Uint32Array.of(k),
            order: new Float32Array(1),
            ids: new Uint32Array(1),
          },
        }
      : {}),
  })),
}));
const frame = (...which: number[]): ViewFrame =>
  ({
    ribbons: which.map((i, n) => ({ id: `r${n}`, shape: shapes[i], surfaces: {} })),
    wardrobe: new Map(),
    scene: {},
    aspect: 1,
    mode: 'shaded',
  }) as never;
const bytes = (p: PackedFrame) =>
  p.ribbons.reduce((n, r) => n + (r.parts ?? []).reduce((m, x) => m + (x.points?.positions.byteLength ?? 0), 0), 0);

describe('frames sent to a worker', () => {
  it('arrive as they were, whatever came before', () => {
    const random = randomSource(4);
    const [packer, unpacker] = [new Packer(), new Unpacker()];
    for (let n = 0; n < 300; n++) {
      const sent = frame(
        ...Array.from({ length: Math.floor(random() * 4) }, () => Math.floor(random() * shapes.length)),
      );
      // Through the copy that a message makes.
      expect(unpacker.unpack(structuredClone(packer.pack(sent)))).toEqual(sent);
    }
  });
  it('carry what stands still only once, and let go of what is gone', () => {
    const packer = new Packer();
    expect(bytes(packer.pack(frame(0, 1)))).toBeGreaterThan(0);
    expect(bytes(packer.pack(frame(0, 1)))).toBe(0);
    packer.pack(frame(2));
    expect(bytes(packer.pack(frame(0, 1)))).toBeGreaterThan(0);
  });
  it('share points and connectivities between parts of one frame', () => {
    const packed = new Packer().pack(frame(0, 4));
    const parts = packed.ribbons.flatMap((r) => r.parts!);
    expect(parts.filter((p) => p.key === 'part-0' && p.points)).toHaveLength(1);
    expect(parts.filter((p) => p.topologyKey === 'topology-0' && p.topology)).toHaveLength(1);
  });
  it('that name what was never sent are refused', () => {
    const packer = new Packer();
    packer.pack(frame(0));
    expect(() => new Unpacker().unpack(packer.pack(frame(0)))).toThrow('never sent');
  });
});
