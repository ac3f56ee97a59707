import { CHANNEL_WIDTH, copyChannels, type CopyChannels } from '../copies/channels';
import { copyCount } from '../copies/copies';
import type { Copies, Mesh } from '../shape/mesh';

/** How many times as far as in the stretches beside it something may go in one; what goes farther jumps there. */
const JUMP = 4;

/**
 * Shapes between those at the ends of equal stretches of time: corners and copies go straight from one to the next.
 * What is another shape at the other end, or jumps there, is that of the nearer end, as are copies that are born or gone.
 */
export class Between {
  /** In-between shapes of a stretch and a share, so that what two have in common stays in common. */
  private readonly known = new Map<string, Map<Mesh, Mesh>>();

  /** @param ends at the ends of the stretches, one more than there are; undefined where it is not there */
  constructor(private readonly ends: readonly (Mesh | undefined)[]) {}

  /** @param at from 0 to the number of stretches */
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

  /** @param of the shape that is meant at an end */
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

  /** The same copies an end further off, for how far they go as a rule. */
  private besides(k: number, near: Mesh, p: Copies): Float32Array | undefined {
    const further = this.ends[near === this.ends[k] ? k - 1 : k + 2]?.copies;
    return further && joined(p.matrices, further.matrices, partnersOf(p, further), 16);
  }
}

/** Which copy of q each of p is: the one of its own chance, or of its own number; −1 for none. */
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

/** Values of the partners, and one's own where there is none. */
function joined(own: Float32Array, others: Float32Array, partner: Int32Array, width: number): Float32Array {
  const out = own.slice();
  for (let i = 0; i < partner.length; i++)
    if (partner[i] >= 0) out.set(others.subarray(width * partner[i], width * (partner[i] + 1)), width * i);
  return out;
}

/**
 * A share of the way from each to its counterpart. What goes more than JUMP times as far as it came from before or goes
 * on to after stays where it is until half of the way, and is there then.
 *
 * @param width numbers that go together: 3 of a point, 16 of a matrix
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
  // A matrix goes as far as its place does.
  const first = width === 16 ? 12 : 0;
  const away = (p: Float32Array, q: Float32Array, i: number) =>
    Math.hypot(p[i] - q[i], p[i + 1] - q[i + 1], p[i + 2] - q[i + 2]);
  for (let i = 0; i < from.length; i += width) {
    const far = away(from, to, i + first);
    const usual = Math.max(before ? away(before, from, i + first) : 0, after ? away(to, after, i + first) : 0);
    // Seen from one side alone, what begins to move does not jump.
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
