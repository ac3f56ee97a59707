import type { Copies, Mesh } from '../shape/mesh';
import { CHANNEL_WIDTH, copyChannels, mapChannels, type CopyChannel } from '../shape/copy-channels';
import { copyCount, withCopies } from './copies';

/** Where copies stand. Arrays have one entry per place unless said otherwise. */
export interface Places {
  /** 3 numbers per place, in metres. */
  readonly at: Float32Array;
  /** Unit quaternions x, y, z, w, 4 numbers per place; absent for no rotation. */
  readonly turns?: Float32Array;
  /** Uniform scale; absent for 1. */
  readonly sizes?: Float32Array;
  /** 0 to count − 1, fractional while places move on; absent for 0, 1, 2… */
  readonly order?: Float32Array;
  /** Identifier for random numbers; absent, the index. */
  readonly ids?: Uint32Array;
  /** Places in one round of the order; by default the number of places. */
  readonly places?: number;
}

/** What stands at each place. */
export interface Dealt {
  readonly sources: readonly Mesh[];
  /** Index into `sources` per place; absent if there is one source. */
  readonly which?: Uint16Array;
  /** Delay, as a share of the loop. */
  readonly late?: Float32Array;
}

/** Writes scale, rotation and translation as a column-major matrix. */
export function placeMatrix(
  out: Float32Array,
  o: number,
  x: number,
  y: number,
  z: number,
  w: number,
  s: number,
  px: number,
  py: number,
  pz: number,
): void {
  out[o] = s * (1 - 2 * (y * y + z * z));
  out[o + 1] = s * 2 * (x * y + z * w);
  out[o + 2] = s * 2 * (x * z - y * w);
  out[o + 4] = s * 2 * (x * y - z * w);
  out[o + 5] = s * (1 - 2 * (x * x + z * z));
  out[o + 6] = s * 2 * (y * z + x * w);
  out[o + 8] = s * 2 * (x * z + y * w);
  out[o + 9] = s * 2 * (y * z - x * w);
  out[o + 10] = s * (1 - 2 * (x * x + y * y));
  out[o + 12] = px;
  out[o + 13] = py;
  out[o + 14] = pz;
  out[o + 15] = 1;
}

/** Product a · b of two column-major affine matrices, written to out. */
function product(a: Float32Array, p: number, b: Float32Array, q: number, out: Float32Array, o: number): void {
  for (let c = 0; c < 4; c++) {
    const [x, y, z] = [b[q + 4 * c], b[q + 4 * c + 1], b[q + 4 * c + 2]];
    const w = c === 3 ? 1 : 0;
    for (let r = 0; r < 3; r++)
      out[o + 4 * c + r] = a[p + r] * x + a[p + 4 + r] * y + a[p + 8 + r] * z + w * a[p + 12 + r];
  }
  out[o + 15] = 1;
}

function matricesOf(places: Places): Float32Array {
  const { at, turns, sizes } = places;
  const n = at.length / 3;
  const out = new Float32Array(16 * n);
  for (let i = 0; i < n; i++) {
    const s = sizes ? sizes[i] : 1;
    if (turns)
      placeMatrix(
        out,
        16 * i,
        turns[4 * i],
        turns[4 * i + 1],
        turns[4 * i + 2],
        turns[4 * i + 3],
        s,
        at[3 * i],
        at[3 * i + 1],
        at[3 * i + 2],
      );
    else placeMatrix(out, 16 * i, 0, 0, 0, 1, s, at[3 * i], at[3 * i + 1], at[3 * i + 2]);
  }
  return out;
}

/**
 * Copies of shapes at places. If a shape has copies itself, the lists are multiplied, not the faces: each of its copies
 * stands at each place.
 */
export function repeatOver(places: Places, dealt: Dealt): Mesh {
  const n = places.at.length / 3;
  const outer = matricesOf(places);
  const order = places.order ?? Float32Array.from({ length: n }, (_, i) => i);
  const count = places.places ?? n;
  if (dealt.sources.every((s) => !s.copies)) {
    const source = dealt.which ?? new Uint16Array(n);
    return withCopies({
      sources: dealt.sources,
      source,
      matrices: outer,
      order,
      places: count,
      ...(places.ids ? { ids: places.ids } : {}),
      ...(dealt.late ? { late: dealt.late } : {}),
    });
  }
  return multiplied(outer, order, count, dealt, places.ids);
}

const asList = (m: Mesh): Copies =>
  m.copies ?? {
    sources: [m],
    source: new Uint16Array(1),
    matrices: Float32Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]),
    order: new Float32Array(1),
    places: 1,
  };

function multiplied(
  outer: Float32Array,
  order: Float32Array,
  places: number,
  { sources, which, late }: Dealt,
  outerIds?: Uint32Array,
): Mesh {
  const lists = sources.map(asList);
  const shapes: Mesh[] = [];
  const number = new Map<Mesh, number>();
  const renumbered = lists.map((l) =>
    l.sources.map((s) => {
      let i = number.get(s);
      if (i === undefined) number.set(s, (i = shapes.push(s) - 1));
      return i;
    }),
  );
  const n = outer.length / 16;
  let total = 0;
  for (let i = 0; i < n; i++) total += copyCount(lists[which ? which[i] : 0]);
  const has = (f: (c: Copies) => unknown) => lists.some(f);
  const source = new Uint16Array(total);
  const matrices = new Float32Array(16 * total);
  const group = new Uint32Array(total);
  const at = new Float32Array(total);
  const later = late || has((c) => c.late) ? new Float32Array(total) : undefined;
  const channels: Partial<Record<CopyChannel, Float32Array>> = {};
  for (const c of copyChannels)
    if (has((l) => l.channels?.[c])) channels[c] = new Float32Array(CHANNEL_WIDTH[c] * total).fill(NaN);
  const materialRibbons = [...new Set(lists.flatMap((l) => l.materialRibbons ?? []))];
  const materialIndices = materialRibbons.length > 0 ? new Uint8Array(total) : undefined;
  const ids = outerIds || has((c) => c.ids) ? new Uint32Array(total) : undefined;
  let o = 0;
  for (let i = 0; i < n; i++) {
    const k = which ? which[i] : 0;
    const inner = lists[k];
    const m = copyCount(inner);
    for (let j = 0; j < m; j++) {
      product(outer, 16 * i, inner.matrices, 16 * j, matrices, 16 * (o + j));
      source[o + j] = renumbered[k][inner.source[j]];
      group[o + j] = i;
      at[o + j] = order[i];
      if (ids) ids[o + j] = (outerIds ? outerIds[i] : i) * m + (inner.ids ? inner.ids[j] : j);
      if (later) later[o + j] = (late ? late[i] : 0) + (inner.late ? inner.late[j] : 0);
    }
    for (const c of copyChannels) if (inner.channels?.[c]) channels[c]!.set(inner.channels[c], CHANNEL_WIDTH[c] * o);
    if (materialIndices && inner.materialIndices)
      for (let j = 0; j < m; j++)
        if (inner.materialIndices[j])
          materialIndices[o + j] = 1 + materialRibbons.indexOf(inner.materialRibbons![inner.materialIndices[j] - 1]);
    o += m;
  }
  return withCopies({
    sources: shapes,
    source,
    matrices,
    order: at,
    places,
    group,
    ...(ids ? { ids } : {}),
    ...(later ? { late: later } : {}),
    ...(Object.keys(channels).length > 0 ? { channels } : {}),
    ...(materialIndices ? { materialIndices, materialRibbons } : {}),
  });
}

/** The copies for which `keep` is true, with all their data. */
export function filtered(copies: Copies, keep: (i: number) => boolean): Copies {
  const kept = Uint32Array.from([...copies.source.keys()].filter(keep));
  // They keep their identifiers for random numbers.
  const ids = copies.ids ? kept.map((i) => copies.ids![i]) : kept;
  const pick = <T extends Float32Array | Uint8Array | Uint16Array | Uint32Array>(
    a: T | undefined,
    width: number,
  ): T | undefined => {
    if (!a) return undefined;
    const out = new (a.constructor as { new (n: number): T })(width * kept.length);
    for (let i = 0; i < kept.length; i++) out.set(a.subarray(width * kept[i], width * kept[i] + width), width * i);
    return out;
  };
  const [group, late, materialIndices] = [pick(copies.group, 1), pick(copies.late, 1), pick(copies.materialIndices, 1)];
  const channels = mapChannels(copies.channels, (values, width) => pick(values, width)!);
  return {
    ...copies,
    source: pick(copies.source, 1)!,
    matrices: pick(copies.matrices, 16)!,
    order: pick(copies.order, 1)!,
    ids,
    ...(group ? { group } : {}),
    ...(late ? { late } : {}),
    ...(channels ? { channels } : {}),
    ...(materialIndices ? { materialIndices } : {}),
  };
}
