import { choice, number } from '../../declare/params';
import { faceNormal } from '../../shape/faces';
import { cornerUv } from '../../shape/attributes';
import { FINISH, perConnectivity, type Connectivity } from '../../shape/mesh';
import { vertexNormals } from '../../shape/normals';
import { topologyOf } from '../../shape/topology';
import { regionMoves, regionParams, regionWeights } from '../deform/region';
import { brief, checkFaces, defineStep } from '../step';

/** Both sides of the faces, the second reversed, joined by quads along every border. */
function build(c: Connectivity, inner: number, rim: number): Connectivity {
  const { edges, edgeFaces, borderEdge } = topologyOf(c);
  const n = c.vertexCount;
  const starts: number[] = [...c.faceStart];
  const corners: number[] = [...c.corners];
  const groups: number[] = [];
  const slots: number[] = [];
  const cornerFrom: number[] = [...c.corners.keys()];
  const faces = c.faceStart.length - 1;
  for (let f = 0; f < faces; f++) {
    groups.push(2 * (c.shadingGroups?.[f] ?? 0));
    slots.push(c.slots?.[f] ?? FINISH.main);
  }
  for (let f = 0; f < faces; f++) {
    for (let k = c.faceStart[f + 1] - 1; k >= c.faceStart[f]; k--) {
      corners.push(c.corners[k] + n);
      cornerFrom.push(k);
    }
    starts.push(corners.length);
    groups.push(2 * (c.shadingGroups?.[f] ?? 0) + 1);
    slots.push(inner);
  }
  for (let e = 0; e < borderEdge.length; e++) {
    if (!borderEdge[e]) continue;
    const f = edgeFaces[2 * e];
    let [a, b] = [edges[2 * e], edges[2 * e + 1]];
    let at = c.faceStart[f];
    // In the direction in which its face runs along it.
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const next = c.corners[k + 1 < c.faceStart[f + 1] ? k + 1 : c.faceStart[f]];
      if (c.corners[k] === b && next === a) [a, b] = [b, a];
      if (c.corners[k] === a && next === b) at = k;
    }
    corners.push(b, a, a + n, b + n);
    const after = at + 1 < c.faceStart[f + 1] ? at + 1 : c.faceStart[f];
    cornerFrom.push(after, at, at, after);
    slots.push(rim);
    starts.push(corners.length);
    groups.push(65_535);
  }
  return {
    vertexCount: 2 * n,
    faceStart: Uint32Array.from(starts),
    corners: Uint32Array.from(corners),
    shadingGroups: Uint16Array.from(groups),
    ...(slots.some((s) => s !== FINISH.main) ? { slots: Uint8Array.from(slots) } : {}),
    ...(c.uv ? { uv: cornerUv(c.uv, cornerFrom) } : {}),
  };
}

const plain = perConnectivity((c) => build(c, FINISH.main, FINISH.main));
const lined = perConnectivity((c) => build(c, FINISH.inside, FINISH.main));
const linedAndRimmed = perConnectivity((c) => build(c, FINISH.inside, FINISH.inside));

/** Gives faces an even thickness, round corners too. */
export const shell = defineStep({
  kind: 'shell',
  title: 'Shell',
  help: 'Gives faces an even thickness, closed along open borders.',
  icon: 'shell',
  group: 'build',
  needs: 'faces',
  params: {
    thickness: number('Thickness', 0.06, 'From side to side.', { unit: 'm', min: 0, max: 1000, soft: [0, 0.6] }),
    lining: choice(
      'Inside',
      'own',
      [
        { value: 'own', title: 'Inside finish' },
        { value: 'rim', title: 'With its rim' },
        { value: 'same', title: 'The same' },
      ],
      'Whether its inner side has the finish for insides, and whether its rim has it too.',
    ),
    side: choice(
      'Grows',
      'in',
      [
        { value: 'in', title: 'Inwards' },
        { value: 'both', title: 'Both ways' },
        { value: 'out', title: 'Outwards' },
      ],
      'To which side.',
    ),
    ...regionParams,
  },
  summary: (v) =>
    `${brief(v.thickness)} m ${v.side === 'in' ? 'inwards' : v.side === 'out' ? 'outwards' : 'both ways'}`,
  reads: { clock: (v) => regionMoves(v) },
  evaluate(v, input, context) {
    const c = input.connectivity;
    checkFaces(2 * (c.faceStart.length - 1), 'Put Shell before the steps that make many faces.');
    const p = input.positions;
    const offset = evenOffsets(c, p);
    const weights = regionWeights(v, input, context);
    const [outer, inner] =
      v.side === 'in' ? [0, -v.thickness] : v.side === 'out' ? [v.thickness, 0] : [v.thickness / 2, -v.thickness / 2];
    const positions = new Float32Array(2 * p.length);
    for (let i = 0; i < p.length; i++) {
      const w = weights ? weights[Math.floor(i / 3)] : 1;
      positions[i] = p[i] + w * outer * offset[i];
      positions[p.length + i] = p[i] + w * inner * offset[i];
    }
    return { connectivity: (v.lining === 'same' ? plain : v.lining === 'rim' ? linedAndRimmed : lined)(c), positions };
  },
});

/** Longest offset relative to the thickness, where faces meet too sharply for an even one. */
const MITRE = 4;

/**
 * The vector at each vertex that moves its faces by one metre: the vertex normal divided by its mean cosine to the
 * faces around it, so that walls are as thick round corners as on flats.
 */
function evenOffsets(c: Connectivity, p: Float32Array): Float32Array {
  const normals = vertexNormals(c, p);
  const sum = new Float32Array(c.vertexCount);
  const count = new Float32Array(c.vertexCount);
  for (let f = 0; f + 1 < c.faceStart.length; f++) {
    const n = faceNormal(c, p, f);
    const l = Math.hypot(...n);
    if (l === 0) continue;
    for (let k = c.faceStart[f]; k < c.faceStart[f + 1]; k++) {
      const i = c.corners[k];
      sum[i] += (n[0] * normals[3 * i] + n[1] * normals[3 * i + 1] + n[2] * normals[3 * i + 2]) / l;
      count[i]++;
    }
  }
  const out = normals.slice();
  for (let i = 0; i < c.vertexCount; i++) {
    const mean = count[i] > 0 ? sum[i] / count[i] : 1;
    const factor = Math.min(MITRE, 1 / Math.max(1e-3, mean));
    for (let k = 0; k < 3; k++) out[3 * i + k] *= factor;
  }
  return out;
}
