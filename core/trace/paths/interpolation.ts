import { CHANNEL_WIDTH, copyChannels, type CopyChannels } from '../../shape/copy-channels';
import { copyCount } from '../../copies/copies';
import type { Copies, Mesh } from '../../shape/mesh';

/** Ratio to the movement in neighbouring segments beyond which a movement is taken for a jump. */
const JUMP = 4;

/**
 * Interpolates shapes between the ends of equal segments of time: vertices and instances move in straight lines. What
 * differs in topology at the other end, or jumps, stays as at the nearer end; so do instances that appear or disappear.
 */
export class Between {
  /** Interpolated shapes by segment and share, so that shared meshes stay shared. */
  private readonly known = new Map<string, Map<Mesh, Mesh>>();

  /** @param ends shapes at the ends of the segments, one more than there are; undefined where the ribbon is absent */
  constructor(private readonly ends: readonly (Mesh | undefined)[]) {}

  /** @param at 0 to the number of segments */
  at(at: number): Mesh | undefined {
    const stretches = this.ends.length - 1;
    const k = Math.min(stretches - 1, Math.floor(at));
    const u = at - k;
    const [a, b] = [this.ends[k], this.ends[k + 1]];
    const nearer = u < 0.5 ? a : b;
    if (!a || !b || a === b || !nearer) return nearer;
    if (a.copies && b.copies) return this.copies(k, u);
    if (a.copies || b.copies || a.field || b.field) return nearer;
    return this.mesh(k, u, (end) => this.ends[end]);
  }

  /** @param of selects the mesh at an end */
  private mesh(k: number, u: number, of: (end: number) => Mesh | undefined): Mesh {
    const [a, b] = [of(k)!, of(k + 1)!];
    if (a === b || a.positions === b.positions) return a;
    const nearer = u < 0.5 ? a : b;
    if (a.connectivity !== b.connectivity || a.positions.length !== b.positions.length || a.field || b.field)
      return nearer;
    const key = `${k} ${u}`;
    let made = this.known.get(key);
    if (!made) this.known.set(key, (made = new Map()));
    let mesh = made.get(a);
    if (!mesh) {
      const beside = [of(k - 1), of(k + 2)].map((m) =>
        m?.connectivity === a.connectivity && m.positions.length === a.positions.length ? m.positions : undefined,
      );
      mesh = { ...nearer, positions: straight(a.positions, b.positions, u, 3, beside[0], beside[1]) };
      made.set(a, mesh);
    }
    return mesh;
  }

  private copies(k: number, u: number): Mesh {
    const [a, b] = [this.ends[k]!, this.ends[k + 1]!];
    const [near, other] = u < 0.5 ? [a, b] : [b, a];
    const [p, q] = [near.copies!, other.copies!];
    const partner = partnersOf(p, q);
    const share = u < 0.5 ? u : 1 - u;
    const sources = p.sources.map((own, s) => {
      const then = q.sources.length === p.sources.length ? q.sources[s] : own;
      const [from, to] = u < 0.5 ? [own, then] : [then, own];
      return this.mesh(k, u, (end) => (end === k ? from : end === k + 1 ? to : this.ends[end]?.copies?.sources[s]));
    });
    const moved = joined(p.matrices, q.matrices, partner, 16);
    const matrices = straight(p.matrices, moved, share, 16, this.besides(k, near, p), undefined);
    const channels = p.channels && betweenChannels(p.channels, q.channels, partner, share);
    const copies: Copies = { ...p, sources, matrices, ...(channels ? { channels } : {}) };
    return { connectivity: sources[0].connectivity, positions: sources[0].positions, copies };
  }

  /** The same copies one end further away, for their usual movement. */
  private besides(k: number, near: Mesh, p: Copies): Float32Array | undefined {
    const further = this.ends[near === this.ends[k] ? k - 1 : k + 2]?.copies;
    return further && joined(p.matrices, further.matrices, partnersOf(p, further), 16);
  }
}

/** Index in q of each copy of p, matched by identifier, else by index; −1 for none. */
function partnersOf(p: Copies, q: Copies): Int32Array {
  const n = copyCount(p);
  const out = new Int32Array(n).fill(-1);
  if (p.ids && q.ids) {
    const where = new Map<number, number>();
    q.ids.forEach((id, i) => where.set(id, i));
    p.ids.forEach((id, i) => (out[i] = where.get(id) ?? -1));
  } else if (copyCount(q) === n) for (let i = 0; i < n; i++) out[i] = i;
  return out;
}

/** Values of the matches, and one's own if there is none. */
function joined(own: Float32Array, others: Float32Array, partner: Int32Array, width: number): Float32Array {
  const out = own.slice();
  for (let i = 0; i < partner.length; i++)
    if (partner[i] >= 0) out.set(others.subarray(width * partner[i], width * (partner[i] + 1)), width * i);
  return out;
}

/**
 * Linear interpolation from each to its match. A value that moves more than JUMP times as far as in the segments before
 * and after stays until half way, and is at its end from then on.
 *
 * @param width numbers that move together: 3 of a point, 16 of a matrix
 */
function straight(
  from: Float32Array,
  to: Float32Array,
  share: number,
  width: 3 | 16,
  before: Float32Array | undefined,
  after: Float32Array | undefined,
): Float32Array {
  const out = new Float32Array(from.length);
  // The movement of a matrix is that of its translation.
  const first = width === 16 ? 12 : 0;
  const away = (p: Float32Array, q: Float32Array, i: number) =>
    Math.hypot(p[i] - q[i], p[i + 1] - q[i + 1], p[i + 2] - q[i + 2]);
  for (let i = 0; i < from.length; i += width) {
    const far = away(from, to, i + first);
    const usual = Math.max(before ? away(before, from, i + first) : 0, after ? away(to, after, i + first) : 0);
    // With one neighbour only, the beginning of a movement is no jump.
    const jumps = before && after ? far > JUMP * usual : usual > 0 && far > JUMP * usual;
    const u = jumps ? (share < 0.5 ? 0 : 1) : share;
    for (let k = i; k < i + width; k++) out[k] = from[k] + u * (to[k] - from[k]);
  }
  return out;
}

function betweenChannels(
  p: CopyChannels,
  q: CopyChannels | undefined,
  partner: Int32Array,
  share: number,
): CopyChannels {
  const out: Partial<Record<(typeof copyChannels)[number], Float32Array>> = {};
  for (const c of copyChannels) {
    const [from, to] = [p[c], q?.[c]];
    if (!from) continue;
    const width = CHANNEL_WIDTH[c];
    const then = to ? joined(from, to, partner, width) : from;
    out[c] = from.map((x, i) => x + share * (then[i] - x));
  }
  return out;
}
