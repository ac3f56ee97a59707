import { number, toggle } from '../../declare/params';
import { squareTo } from '../../shape/closed-path';
import { ConnectivityBuilder } from '../../shape/builder';
import { FINISH, perConnectivity, type Connectivity } from '../../shape/mesh';
import { topologyOf } from '../../shape/topology';
import { brief, checkFaces, defineStep } from '../step';

/** A ball for the joints: an octahedron subdivided once, 18 vertices and 32 faces. */
const BALL = ballOf();

function ballOf(): { points: number[][]; faces: number[][] } {
  const points: number[][] = [];
  const ids = new Map<string, number>();
  const put = (p: number[]) => {
    const l = Math.hypot(...p);
    const key = p.map((x) => Math.round((x / l) * 1e6)).join();
    let at = ids.get(key);
    if (at === undefined) ids.set(key, (at = points.push(p.map((x) => x / l)) - 1));
    return at;
  };
  const faces: number[][] = [];
  for (const x of [1, -1])
    for (const y of [1, -1])
      for (const z of [1, -1]) {
        const [a, b, c] = [
          [x, 0, 0],
          [0, y, 0],
          [0, 0, z],
        ];
        const mid = (p: number[], q: number[]) => p.map((v, k) => v + q[k]);
        const [ab, bc, ca] = [mid(a, b), mid(b, c), mid(c, a)];
        for (const t of [
          [a, ab, ca],
          [ab, b, bc],
          [ca, bc, c],
          [ab, bc, ca],
        ])
          faces.push((x * y * z > 0 ? t : [...t].reverse()).map(put));
      }
  return { points, faces };
}

const built = perConnectivity((c: Connectivity) => new Map<string, Connectivity>([['', c]]));

/** Rods for edges, balls for vertices, and the faces if they are kept. */
function connectivityFor(c: Connectivity, sides: number, joints: boolean, keep: boolean): Connectivity {
  const own = built(c);
  const key = `${sides}/${joints}/${keep}`;
  let out = own.get(key);
  if (out) return out;
  const faces = new ConnectivityBuilder();
  let first = 0;
  if (keep) {
    for (let f = 0; f + 1 < c.faceStart.length; f++)
      faces.face(
        [...c.corners.subarray(c.faceStart[f], c.faceStart[f + 1])],
        c.shadingGroups?.[f] ?? 0,
        c.slots?.[f] ?? FINISH.main,
      );
    first = c.vertexCount;
  }
  const rods = topologyOf(c).edges.length / 2;
  for (let e = 0; e < rods; e++) {
    for (let i = 0; i < sides; i++) {
      const j = (i + 1) % sides;
      faces.face([first + i, first + j, first + sides + j, first + sides + i], 60_000, FINISH.rods);
    }
    if (!joints) {
      faces.face(
        Array.from({ length: sides }, (_, i) => first + sides - 1 - i),
        60_001,
        FINISH.rods,
      );
      faces.face(
        Array.from({ length: sides }, (_, i) => first + sides + i),
        60_002,
        FINISH.rods,
      );
    }
    first += 2 * sides;
  }
  for (let v = 0; joints && v < c.vertexCount; v++) {
    for (const f of BALL.faces)
      faces.face(
        f.map((i) => first + i),
        60_003,
        FINISH.joints,
      );
    first += BALL.points.length;
  }
  out = faces.finish(first);
  own.set(key, out);
  return out;
}

/** Turns edges into rods and vertices into joints. */
export const struts = defineStep({
  kind: 'struts',
  title: 'Struts',
  help: 'Makes rods of the edges and joints of the corners.',
  icon: 'struts',
  group: 'build',
  params: {
    rod: number('Rod radius', 0.02, 'Of the rods.', { unit: 'm', min: 0, max: 100, soft: [0, 0.2], step: 0.005 }),
    joint: number('Joint radius', 0.05, 'Of the joints; 0 leaves them out.', {
      unit: 'm',
      min: 0,
      max: 100,
      soft: [0, 0.4],
      step: 0.005,
    }),
    sides: number('Sides', 6, 'Faces round a rod.', { min: 3, max: 48, soft: [3, 16], integer: true, moves: false }),
    keep: toggle('Keep faces', false, 'Leaves the faces between the rods.'),
  },
  summary: (v) => `rods ${brief(v.rod)} m, joints ${brief(v.joint)} m`,
  evaluate(v, input) {
    const c = input.connectivity;
    const p = input.positions;
    const { edges } = topologyOf(c);
    const joints = v.joint > 0;
    checkFaces(
      (edges.length / 2) * (v.sides + 2) + (joints ? 32 * c.vertexCount : 0),
      'Put Struts before Subdivide, or make the form coarser.',
    );
    const connectivity = connectivityFor(c, v.sides, joints, v.keep);
    const out = new Float32Array(connectivity.vertexCount * 3);
    let o = 0;
    if (v.keep) {
      out.set(p);
      o = p.length;
    }
    for (let e = 0; e < edges.length; e += 2) {
      const [a, b] = [3 * edges[e], 3 * edges[e + 1]];
      const d = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
      const l = Math.hypot(...d) || 1;
      const t = [d[0] / l, d[1] / l, d[2] / l];
      const n = squareTo(t, Math.abs(t[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]);
      const s = [t[1] * n[2] - t[2] * n[1], t[2] * n[0] - t[0] * n[2], t[0] * n[1] - t[1] * n[0]];
      for (const end of [a, b])
        for (let i = 0; i < v.sides; i++) {
          const angle = (2 * Math.PI * i) / v.sides;
          const [x, y] = [v.rod * Math.cos(angle), v.rod * Math.sin(angle)];
          for (let k = 0; k < 3; k++) out[o++] = p[end + k] + x * n[k] + y * s[k];
        }
    }
    if (joints)
      for (let i = 0; i < p.length; i += 3)
        for (const q of BALL.points) for (let k = 0; k < 3; k++) out[o++] = p[i + k] + v.joint * q[k];
    return { connectivity, positions: out };
  },
});
