import { choice, number } from '../../declare/params';
import { ballUv } from '../../shape/attributes';
import { ConnectivityBuilder, meshOf } from '../../shape/builder';
import type { Connectivity } from '../../shape/mesh';
import { brief, checkFaces, defineStep } from '../step';
import { solids } from './solids-data';
import { stretch, stretched } from './stretch';

type Name = keyof typeof solids;

interface Divided {
  readonly connectivity: Connectivity;
  /** On the flat faces of the unit solid. */
  readonly points: Float64Array;
}

const known = new Map<string, Divided>();

/**
 * A solid with every edge divided into equal parts. With one part its faces are whole; with more, triangles are
 * subdivided, and other faces first become triangles about their centre.
 */
function divided(name: Name, parts: number): Divided {
  const key = `${name}/${parts}`;
  const hit = known.get(key);
  if (hit) return hit;
  const { corners, faces } = solids[name];
  const builder = new ConnectivityBuilder();
  const ids = new Map<string, number>();
  const points: number[] = [];
  const put = (p: readonly number[]): number => {
    const id = p.map((x) => Math.round(x * 1e7)).join();
    let at = ids.get(id);
    if (at === undefined) {
      at = ids.size;
      ids.set(id, at);
      points.push(...p);
    }
    return at;
  };
  faces.forEach((face, group) => {
    if (parts === 1)
      return builder.face(
        face.map((i) => put(corners[i])),
        group,
      );
    const middle = [0, 1, 2].map((k) => face.reduce((s, i) => s + corners[i][k], 0) / face.length);
    const triangles =
      face.length === 3
        ? [face.map((i) => corners[i])]
        : face.map((i, j) => [middle, corners[i], corners[face[(j + 1) % face.length]]]);
    for (const [a, b, c] of triangles) {
      const at = (i: number, j: number) =>
        put([0, 1, 2].map((k) => a[k] + ((b[k] - a[k]) * i + (c[k] - a[k]) * j) / parts));
      for (let i = 0; i < parts; i++)
        for (let j = 0; i + j < parts; j++) {
          builder.face([at(i, j), at(i + 1, j), at(i, j + 1)], group);
          if (i + j < parts - 1) builder.face([at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)], group);
        }
    }
  });
  const connectivity = builder.finish(points.length / 3);
  const made = {
    connectivity: { ...connectivity, uv: ballUv(connectivity, points) },
    points: Float64Array.from(points),
  };
  if (known.size > 16) known.clear();
  known.set(key, made);
  return made;
}

const smooth = new WeakMap<Connectivity, Connectivity>();

/** The same faces without shading breaks between them. */
function ungrouped(c: Connectivity): Connectivity {
  let out = smooth.get(c);
  if (!out) smooth.set(c, (out = { ...c, shadingGroups: undefined }));
  return out;
}

/** The five regular solids, flat or inflated towards the sphere. */
export const platonic = defineStep({
  kind: 'platonic',
  title: 'Regular solid',
  help: 'One of the five regular solids, or anything between it and a ball.',
  icon: 'platonic',
  group: 'form',
  params: {
    solid: choice(
      'Solid',
      'dodecahedron',
      [
        { value: 'tetrahedron', title: 'Tetrahedron' },
        { value: 'cube', title: 'Cube' },
        { value: 'octahedron', title: 'Octahedron' },
        { value: 'dodecahedron', title: 'Dodecahedron' },
        { value: 'icosahedron', title: 'Icosahedron' },
      ],
      'Which of the five.',
    ),
    radius: number('Radius', 1.2, 'From the centre to a corner.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    parts: number('Edge parts', 1, 'Parts each edge is cut into; 1 leaves the faces whole.', {
      min: 1,
      max: 200,
      soft: [1, 32],
      integer: true,
    }),
    ball: number('Ball', 0, 'How far its faces are pushed out to the ball through its corners.', {
      unit: '%',
      min: 0,
      max: 100,
      soft: [0, 100],
      step: 1,
    }),
    stretch,
  },
  summary: (v) => `${v.solid} · ${brief(v.radius)} m`,
  evaluate(v) {
    const name = v.solid as Name;
    checkFaces(solids[name].faces.length * 5 * v.parts ** 2, 'Use fewer edge parts.');
    const { connectivity, points } = divided(name, v.parts);
    const positions = new Float32Array(points.length);
    const share = v.ball / 100;
    for (let i = 0; i < points.length; i += 3) {
      const length = Math.hypot(points[i], points[i + 1], points[i + 2]);
      const factor = v.radius * (1 - share + share / length);
      for (let k = 0; k < 3; k++) positions[i + k] = points[i + k] * factor;
    }
    return stretched(meshOf(share > 0.999 ? ungrouped(connectivity) : connectivity, positions), v.stretch);
  },
});
