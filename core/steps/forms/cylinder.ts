import { number, toggle } from '../../declare/params';
import { ConnectivityBuilder, connectivityStore, meshOf } from '../../shape/builder';
import { arc, lathe, straight } from '../../shape/lathe';
import { FINISH, type Mesh } from '../../shape/mesh';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

const store = connectivityStore();

/** An upright cylinder. Caps are rings of quads round a fan, shaded flat against the side unless the rims are round. */
export const cylinder = defineStep({
  kind: 'cylinder',
  title: 'Cylinder',
  help: 'An upright pillar, open or with caps.',
  icon: 'cylinder',
  group: 'form',
  params: {
    radius: number('Radius', 0.7, 'From the axis to the side.', { unit: 'm', min: 0, max: 1000, soft: [0, 3] }),
    height: number('Height', 2, 'From cap to cap.', { unit: 'm', min: 0, max: 1000, soft: [0, 6] }),
    sides: number('Sides', 32, 'Faces round the axis.', { min: 3, max: 2000, soft: [3, 128], integer: true }),
    rows: number('Rows', 14, 'Faces along the height.', { min: 1, max: 2000, soft: [1, 96], integer: true }),
    caps: toggle('Caps', true, 'Close both ends.'),
    capRings: number('Cap rings', 4, 'Rings of faces on each cap.', {
      min: 1,
      max: 200,
      soft: [1, 24],
      integer: true,
      shownWhen: { param: 'caps', is: [true] },
    }),
    rounding: number('Rounding', 0, 'Radius of the rims between side and caps.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 0.7],
      shownWhen: { param: 'caps', is: [true] },
    }),
    roundSteps: number('Round steps', 5, 'Faces across a rounded rim.', {
      min: 1,
      max: 100,
      soft: [1, 16],
      integer: true,
      shownWhen: { param: 'caps', is: [true] },
    }),
    stretch,
  },
  summary: (v) => `${brief(v.radius)} × ${brief(v.height)} m · ${v.sides} × ${v.rows}`,
  evaluate(v) {
    const round = v.caps ? Math.min(v.rounding, v.radius, v.height / 2) : 0;
    const bends = round > 0 ? v.roundSteps : 0;
    const rings = v.caps ? v.capRings : 0;
    checkFaces(v.sides * (v.rows + 2 * (rings + bends)), 'Use fewer sides, rows, round steps or cap rings.');
    const mesh = round > 0 ? rounded(v, round) : plain(v);
    return stretched(mesh, v.stretch);
  },
});

interface Values {
  readonly radius: number;
  readonly height: number;
  readonly sides: number;
  readonly rows: number;
  readonly caps: boolean;
  readonly capRings: number;
  readonly roundSteps: number;
}

/** The profile from the centre of the lower cap to that of the upper one, with quarter-circle rims. */
function rounded(v: Values, round: number): Mesh {
  const [inner, half] = [v.radius - round, v.height / 2];
  const quarter = Math.PI / 2;
  return lathe(
    [
      ...straight({ r: 0, y: -half }, { r: inner, y: -half }, v.capRings),
      ...arc(inner, round - half, round, -quarter, 0, v.roundSteps),
      ...straight({ r: v.radius, y: round - half }, { r: v.radius, y: half - round }, v.rows),
      ...arc(inner, half - round, round, 0, quarter, v.roundSteps),
      ...straight({ r: inner, y: half }, { r: 0, y: half }, v.capRings),
      { r: 0, y: half },
    ],
    v.sides,
  );
}

function plain(v: Values): Mesh {
  const { sides, rows } = v;
  const rings = v.caps ? v.capRings : 0;
  // Side vertices first, then for each cap its inner rings from the rim inwards, and its centre.
  const sideCount = sides * (rows + 1);
  const capCount = rings > 0 ? sides * (rings - 1) + 1 : 0;
  const total = sideCount + 2 * capCount;
  const connectivity = store(`${sides}/${rows}/${rings}`, () => {
    const faces = new ConnectivityBuilder();
    const at = (row: number, i: number) => row * sides + (i % sides);
    for (let r = 0; r < rows; r++)
      for (let i = 0; i < sides; i++) {
        const [u, on, v, up] = [i / sides, (i + 1) / sides, r / rows, (r + 1) / rows];
        faces.face([at(r, i), at(r + 1, i), at(r + 1, i + 1), at(r, i + 1)], 0, FINISH.main, [
          u,
          v,
          u,
          up,
          on,
          up,
          on,
          v,
        ]);
      }
    for (let cap = 0; cap < (rings > 0 ? 2 : 0); cap++) {
      const first = sideCount + cap * capCount;
      const middle = first + capCount - 1;
      const ring = (k: number, i: number) => (k === 0 ? at(cap * rows, i) : first + (k - 1) * sides + (i % sides));
      // The cap seen from above, x to the right.
      const place = (k: number, i: number) => {
        const [r, a] = [0.5 * (1 - k / rings), (2 * Math.PI * i) / sides];
        return [0.5 + r * Math.cos(a), 0.5 - r * Math.sin(a)];
      };
      for (let k = 0; k < rings; k++)
        for (let i = 0; i < sides; i++) {
          const face =
            k === rings - 1
              ? [ring(k, i), ring(k, i + 1), middle]
              : [ring(k, i), ring(k, i + 1), ring(k + 1, i + 1), ring(k + 1, i)];
          const places = (
            face.length === 3
              ? [place(k, i), place(k, i + 1), [0.5, 0.5]]
              : [place(k, i), place(k, i + 1), place(k + 1, i + 1), place(k + 1, i)]
          ) as number[][];
          if (cap === 1) [face, places].forEach((list) => list.reverse());
          faces.face(face, 1 + cap, FINISH.main, places.flat());
        }
    }
    return faces.finish(total);
  });
  const positions = new Float32Array(total * 3);
  let p = 0;
  const ringOf = (radius: number, y: number) => {
    for (let i = 0; i < sides; i++) {
      const a = (2 * Math.PI * i) / sides;
      positions[p++] = radius * Math.cos(a);
      positions[p++] = y;
      positions[p++] = radius * Math.sin(a);
    }
  };
  for (let r = 0; r <= rows; r++) ringOf(v.radius, (r / rows - 0.5) * v.height);
  for (let cap = 0; cap < (rings > 0 ? 2 : 0); cap++) {
    const y = (cap - 0.5) * v.height;
    for (let k = 1; k < rings; k++) ringOf(v.radius * (1 - k / rings), y);
    positions.set([0, y, 0], p);
    p += 3;
  }
  return meshOf(connectivity, positions);
}
