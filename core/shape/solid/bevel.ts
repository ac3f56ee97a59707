import { ConnectivityBuilder } from '../builder';
import { faceNormal } from '../faces';
import { FINISH, type Connectivity, type Mesh } from '../mesh';
import { edgesSharperThan } from '../sharp';
import { topologyOf } from '../topology';

/** A bevel takes at most this fraction of an edge from each end. */
const MOST = 0.45;

/**
 * Takes the sharp edges of a mesh off. Round a corner, the faces between one sharp edge and the next
 * keep a corner of their own, drawn in from both; where they parted, each edge becomes a strip and
 * each corner with three sharp edges or more a patch. A sharp edge that ends nowhere narrows to its end.
 *
 * @param width metres from the edge along the faces
 * @param segments faces across; strips bend as quadratic curves that leave both faces smoothly
 */
export function bevelled(mesh: Mesh, width: number, degrees: number, segments: number): Mesh {
  const c = mesh.connectivity;
  const p = mesh.positions;
  const topo = topologyOf(c);
  const sharp = edgesSharperThan(mesh, degrees);
  const around = cornersRound(c);
  const positions: number[] = [];
  const put = (q: readonly number[]) => positions.push(q[0], q[1], q[2]) / 3 - 1;
  const at = (v: number): [number, number, number] => [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
  /** New vertex of each corner of a face. */
  const own = new Int32Array(c.corners.length).fill(-1);
  const faces = new ConnectivityBuilder();
  /** Points across the bevel of an edge at one end, from the corner of one face to that of the other. */
  const strips = new Map<string, number[]>();

  for (let v = 0; v < c.vertexCount; v++) {
    const fan = around(v);
    if (!fan) continue;
    const cuts = fan.corners.map((_, i) => sharp[fan.edges[i]] === 1);
    const count = cuts.filter(Boolean).length;
    if (fan.open || count < 2) {
      const id = put(at(v));
      for (const k of fan.corners) own[k] = id;
      continue;
    }
    // Wedges begin after a sharp edge: edges[i] precedes corners[i] in circular order.
    const first = cuts.indexOf(true);
    const n = fan.corners.length;
    const wedges: { corners: number[]; from: number; to: number }[] = [];
    for (let i = 0; i < n; i++) {
      const k = (first + i) % n;
      if (cuts[k]) wedges.push({ corners: [], from: fan.edges[k], to: -1 });
      wedges[wedges.length - 1].corners.push(fan.corners[k]);
    }
    wedges.forEach((w, i) => (w.to = wedges[(i + 1) % wedges.length].from));
    const ids = wedges.map((w) => {
      const id = put(wedgePoint(c, p, v, w, topo.edges, width, at));
      for (const k of w.corners) own[k] = id;
      return id;
    });
    // The strip between this wedge and the previous one covers the edge between them.
    wedges.forEach((w, i) => {
      const [left, right] = [ids[(i + wedges.length - 1) % wedges.length], ids[i]];
      // With two edges the same line serves both, seen from the other side.
      if (wedges.length === 2 && i === 1) {
        strips.set(`${w.from}/${v}`, [...strips.get(`${wedges[0].from}/${v}`)!].reverse());
        return;
      }
      const line = [left];
      for (let s = 1; s < segments; s++) {
        const t = s / segments;
        const [a, b] = [left, right].map((id) => positions.slice(3 * id, 3 * id + 3));
        line.push(put(at(v).map((x, k) => (1 - t) * (1 - t) * a[k] + 2 * t * (1 - t) * x + t * t * b[k])));
      }
      line.push(right);
      strips.set(`${w.from}/${v}`, line);
    });
    if (wedges.length > 2) {
      const ring = wedges.flatMap((w) => strips.get(`${w.from}/${v}`)!.slice(0, -1));
      // The centre of the quadratic triangle whose corners are the wedges and whose control points are all the old
      // corner.
      const mean = [0, 1, 2].map((k) => ids.reduce((s, id) => s + positions[3 * id + k], 0) / ids.length);
      patch(faces, ring, segments > 1 ? mean.map((x, k) => x / 3 + (2 * at(v)[k]) / 3) : mean, put);
    }
  }

  for (let f = 0; f + 1 < c.faceStart.length; f++) {
    const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
    faces.face(
      Array.from({ length: to - from }, (_, i) => own[from + i]),
      2 * (c.shadingGroups?.[f] ?? 0),
      c.slots?.[f] ?? FINISH.main,
    );
  }
  for (let f = 0; f + 1 < c.faceStart.length; f++)
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const e = topo.cornerEdge[k];
      if (!sharp[e] || topo.edgeFaces[2 * e] !== f) continue;
      const next = k + 1 < c.faceStart[f + 1] ? k + 1 : c.faceStart[f];
      // This face's side of the edge first, then over to the other face at both ends.
      const a = sideLine(strips.get(`${e}/${c.corners[k]}`), own[k]);
      const b = sideLine(strips.get(`${e}/${c.corners[next]}`), own[next]);
      const steps = Math.max(a.length, b.length) - 1;
      for (let s = 0; s < steps; s++) {
        const corners = [
          b[Math.min(s, b.length - 1)],
          a[Math.min(s, a.length - 1)],
          a[Math.min(s + 1, a.length - 1)],
          b[Math.min(s + 1, b.length - 1)],
        ];
        const kept = corners.filter((x, i) => x !== corners[(i + 3) % 4]);
        if (kept.length > 2) faces.face(kept, 1, c.slots?.[f] ?? FINISH.main);
      }
    }
  return { connectivity: faces.finish(positions.length / 3), positions: Float32Array.from(positions) };
}

/** The line starting at a corner; the corner alone if the edge ends in a point. */
function sideLine(line: number[] | undefined, corner: number): number[] {
  if (!line) return [corner];
  return line[0] === corner ? line : [...line].reverse();
}

/** A patch over a ring of points: a face, or a fan about a centre. */
function patch(
  faces: ConnectivityBuilder,
  ring: readonly number[],
  middle: readonly number[],
  put: (q: readonly number[]) => number,
): void {
  if (ring.length <= 4) return faces.face(ring, 1);
  const id = put(middle);
  ring.forEach((a, i) => faces.face([a, ring[(i + 1) % ring.length], id], 1));
}

/** New position of the corner of the faces between two sharp edges. */
function wedgePoint(
  c: Connectivity,
  p: Float32Array,
  v: number,
  w: { corners: readonly number[]; from: number; to: number },
  edges: Uint32Array,
  width: number,
  at: (v: number) => [number, number, number],
): number[] {
  const here = at(v);
  const along = (e: number) => {
    const far = at(edges[2 * e] === v ? edges[2 * e + 1] : edges[2 * e]);
    const d = far.map((x, k) => x - here[k]);
    const length = Math.hypot(...d);
    return { d: d.map((x) => x / (length || 1)), length };
  };
  const [a, b] = [along(w.from), along(w.to)];
  const cosine = Math.max(-1, Math.min(1, a.d[0] * b.d[0] + a.d[1] * b.d[1] + a.d[2] * b.d[2]));
  const sine = Math.sqrt(1 - cosine * cosine);
  // Lines at `width` from both edges meet at (a + b) · width / sin θ.
  if (w.corners.length === 1 && sine > 0.17) {
    const reach = Math.min(width / sine, MOST * Math.min(a.length, b.length));
    return here.map((x, k) => x + reach * (a.d[k] + b.d[k]));
  }
  // Over several faces, or past a straight corner: along the middle of the wedge, within its faces.
  const inward = [0, 0, 0];
  let shortest = Math.min(a.length, b.length);
  for (const k of w.corners) {
    const f = faceOfCorner(c, k);
    const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
    const n = faceNormal(c, p, f);
    const l = Math.hypot(...n) || 1;
    const [x, y] = [at(c.corners[k > from ? k - 1 : to - 1]), at(c.corners[k + 1 < to ? k + 1 : from])];
    shortest = Math.min(
      shortest,
      Math.hypot(...x.map((q, i) => q - here[i])),
      Math.hypot(...y.map((q, i) => q - here[i])),
    );
    // Perpendicular to the direction across this corner, within the face.
    const across = x.map((q, i) => q - y[i]);
    const m = n.map((q) => q / l);
    inward[0] += m[1] * across[2] - m[2] * across[1];
    inward[1] += m[2] * across[0] - m[0] * across[2];
    inward[2] += m[0] * across[1] - m[1] * across[0];
  }
  const size = Math.hypot(...inward);
  if (size < 1e-12) return here;
  // Pointing into the faces: towards their centres.
  const mid = w.corners
    .map((k) => at(c.corners[next(c, k)]))
    .reduce<number[]>((s, q) => s.map((x, i) => x + q[i] - here[i]), [0, 0, 0]);
  const sign = inward[0] * mid[0] + inward[1] * mid[1] + inward[2] * mid[2] >= 0 ? 1 : -1;
  const reach = Math.min(width, MOST * shortest);
  return here.map((x, k) => x + (sign * reach * inward[k]) / size);
}

function next(c: Connectivity, k: number): number {
  const f = faceOfCorner(c, k);
  return k + 1 < c.faceStart[f + 1] ? k + 1 : c.faceStart[f];
}

/** The face of a corner, by binary search. */
function faceOfCorner(c: Connectivity, k: number): number {
  let [low, high] = [0, c.faceStart.length - 2];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (c.faceStart[middle] <= k) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * Corners round a vertex in order, counter-clockwise seen from outside: corner i lies between edge i
 * and edge i + 1. Open where the faces do not go all the way round, or where several fans meet. Null
 * for a vertex without faces.
 */
function cornersRound(c: Connectivity): (v: number) => { corners: number[]; edges: number[]; open: boolean } | null {
  const { cornerEdge, borderEdge } = topologyOf(c);
  const at: number[][] = Array.from({ length: c.vertexCount }, () => []);
  c.corners.forEach((v, k) => at[v].push(k));
  const ends = (k: number) => {
    const f = faceOfCorner(c, k);
    const before = k > c.faceStart[f] ? k - 1 : c.faceStart[f + 1] - 1;
    return { out: cornerEdge[k], in: cornerEdge[before] };
  };
  return (v) => {
    const list = at[v];
    if (list.length === 0) return null;
    // The face beyond the edge that comes in to a corner has that same edge going out.
    const byOut = new Map(list.map((k) => [ends(k).out, k]));
    const start = list.find((k) => borderEdge[ends(k).out]) ?? list[0];
    const corners: number[] = [];
    const edges: number[] = [];
    let k: number | undefined = start;
    while (k !== undefined && !corners.includes(k)) {
      corners.push(k);
      edges.push(ends(k).out);
      k = byOut.get(ends(k).in);
    }
    const open = corners.some((k) => borderEdge[ends(k).out] || borderEdge[ends(k).in]) || corners.length < list.length;
    return { corners: corners.length < list.length ? list : corners, edges, open };
  };
}
