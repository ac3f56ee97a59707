import type { Copies, Mesh } from '../shape/mesh';
import { mapChannels } from '../shape/copy-channels';
import { withCopies } from './copies';

function longer<T extends Float32Array | Uint8Array | Uint16Array | Uint32Array>(a: T, ...more: number[]): T {
  const out = new (a.constructor as { new (n: number): T })(a.length + more.length);
  out.set(a);
  out.set(more, a.length);
  return out;
}

/** Adds a shape to a list of copies as one more copy, of itself. */
export function beside(copies: Copies, mesh: Mesh): Mesh {
  if (mesh.positions.length === 0) return withCopies(copies);
  const { group, ids, late, channels, materialIndices } = copies;
  return withCopies({
    ...copies,
    sources: [...copies.sources, mesh],
    source: longer(copies.source, copies.sources.length),
    matrices: longer(copies.matrices, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1),
    order: longer(copies.order, 0),
    ...(group ? { group: longer(group, 0) } : {}),
    ...(ids ? { ids: longer(ids, 4_294_967_295) } : {}),
    ...(late ? { late: longer(late, 0) } : {}),
    ...(channels
      ? {
          channels: mapChannels(channels, (values, width) =>
            longer(values, ...Array.from({ length: width }, () => NaN)),
          ),
        }
      : {}),
    ...(materialIndices ? { materialIndices: longer(materialIndices, 0) } : {}),
  });
}
