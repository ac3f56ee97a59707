import { number } from '../../declare/params';
import { faceNormal } from '../../shape/faces';
import type { Connectivity } from '../../shape/mesh';
import { NO_FACE, topologyOf } from '../../shape/topology';
import { brief, defineStep } from '../step';

const known = new WeakMap<Connectivity, Map<string, Connectivity>>();

/** Splits shading where faces meet at more than an angle; 0 shades every face flat. */
export const shade = defineStep({
  kind: 'shade',
  title: 'Shading',
  help: 'Flat or smooth shading, by the angle at which faces meet.',
  icon: 'shade',
  group: 'detail',
  needs: 'faces',
  params: {
    angle: number('Angle', 30, 'Faces that meet at more than this are shaded apart; 180 is smooth all over.', {
      unit: '°',
      min: 0,
      max: 180,
      soft: [0, 180],
      step: 1,
    }),
  },
  summary: (v) => (v.angle === 0 ? 'flat' : v.angle === 180 ? 'smooth' : `apart from ${brief(v.angle)}° on`),
  evaluate(v, input) {
    const c = input.connectivity;
    const faces = c.faceStart.length - 1;
    const { edgeFaces } = topologyOf(c);
    const normals = Array.from({ length: faces }, (_, f) => {
      const n = faceNormal(c, input.positions, f);
      const l = Math.hypot(...n) || 1;
      return [n[0] / l, n[1] / l, n[2] / l];
    });
    // Faces joined by edges that are flat enough form one group: union–find.
    const parent = Uint32Array.from({ length: faces }, (_, f) => f);
    const find = (f: number): number => {
      while (parent[f] !== f) f = parent[f] = parent[parent[f]];
      return f;
    };
    const least = Math.cos((v.angle * Math.PI) / 180) - 1e-9;
    if (v.angle > 0)
      for (let e = 0; e < edgeFaces.length; e += 2) {
        const [a, b] = [edgeFaces[e], edgeFaces[e + 1]];
        if (b === NO_FACE) continue;
        const cosine = normals[a][0] * normals[b][0] + normals[a][1] * normals[b][1] + normals[a][2] * normals[b][2];
        if (cosine >= least) parent[find(a)] = find(b);
      }
    const numbers = new Map<number, number>();
    const groups = new Uint16Array(faces);
    for (let f = 0; f < faces; f++) {
      const root = find(f);
      let n = numbers.get(root);
      if (n === undefined) numbers.set(root, (n = numbers.size % 65_536));
      groups[f] = n;
    }
    // A moving form usually keeps its groups, and then its connectivity too.
    const key = fingerprintOf(groups);
    let own = known.get(c);
    if (!own) known.set(c, (own = new Map()));
    let out = own.get(key);
    if (!out) {
      if (own.size > 60) own.clear();
      own.set(key, (out = { ...c, shadingGroups: numbers.size > 1 ? groups : undefined }));
    }
    return { connectivity: out, positions: input.positions };
  },
});

function fingerprintOf(groups: Uint16Array): string {
  let [a, b] = [0x811c9dc5, 0x9e3779b9];
  for (const g of groups) {
    a = Math.imul(a ^ g, 0x01000193);
    b = Math.imul(b ^ (g + (a >>> 5)), 0x85ebca6b);
  }
  return `${a}/${b}`;
}
